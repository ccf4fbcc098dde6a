-- A scene picks a house standard; what is in no scene goes by the project's.
ALTER TABLE scenes
ADD COLUMN standard_id text;

ALTER TABLE projects
ADD COLUMN standard_id text NOT NULL DEFAULT 'broad-day';
