-- An archived project is kept whole, out of the way.
ALTER TABLE projects
ADD COLUMN archived_at timestamptz;
