-- New projects go by what no school disputes; those that stand keep theirs.
ALTER TABLE projects
ALTER COLUMN standard_id
SET DEFAULT 'common-ground';
