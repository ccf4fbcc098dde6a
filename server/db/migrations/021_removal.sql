-- A removed project can be brought back for some days; then it goes with all that nobody else uses.
ALTER TABLE projects
ADD COLUMN removed_at timestamptz;
