-- What shots have unless they differ: a project's display, rendering and standard, then its scenes', then their own.
-- NULL inherits; of a project, it is what the program says.
ALTER TABLE projects
ADD COLUMN display_id text,
ADD COLUMN rendering text;

ALTER TABLE scenes
ADD COLUMN display_id text,
ADD COLUMN rendering text;

ALTER TABLE shots
ADD COLUMN standard_id text;
