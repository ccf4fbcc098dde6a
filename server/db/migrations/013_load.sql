-- What a project of thousands of shots and a record of hundreds of thousands of revisions needs to stay quick.
-- What a revision changed, in words: worked out once, when it is saved or first read. Revisions themselves never
-- change.
CREATE TABLE revision_changes (
  revision_id uuid PRIMARY KEY REFERENCES revisions ON DELETE CASCADE,
  words jsonb NOT NULL
);

-- The Reel shows these of every shot: unpacking two hundred whole grades for them would take most of its time.
ALTER TABLE revisions
ADD COLUMN read jsonb GENERATED ALWAYS AS (grade -> 'read') STORED,
ADD COLUMN display_id text GENERATED ALWAYS AS (grade -> 'show' ->> 'displayId') STORED;

-- The record is read from the newest on, a page at a time.
DROP INDEX revisions_by_shot;

CREATE INDEX revisions_by_shot ON revisions (shot_id, created_at DESC, depth DESC, id DESC);

-- A shot that is removed takes its revisions along: each asks who else stands on it.
CREATE INDEX shots_by_head ON shots (head_id);

CREATE INDEX shots_by_tip ON shots (tip_id);

CREATE INDEX versions_by_revision ON versions (revision_id);

CREATE INDEX renders_by_shot ON renders (shot_id);

-- A project's renders are listed by the newest.
ALTER TABLE renders
ADD COLUMN project_id uuid REFERENCES projects ON DELETE CASCADE;

UPDATE renders n
SET
  project_id = s.project_id
FROM
  shots s
WHERE
  s.id = n.shot_id;

ALTER TABLE renders
ALTER COLUMN project_id
SET NOT NULL;

CREATE INDEX renders_by_project ON renders (project_id, created_at DESC);

DROP INDEX renders_newest;

CREATE INDEX renders_by_revision ON renders (revision_id);

CREATE INDEX shots_by_scene ON shots (scene_id);

CREATE INDEX scenes_by_project ON scenes (project_id, position);

-- Work that goes on is asked for every few seconds; work that has ended is pruned.
CREATE INDEX work_going_on ON work (updated_at)
WHERE
  state IN ('queued', 'running', 'failed');

CREATE INDEX work_ended ON work (updated_at)
WHERE
  state IN ('done', 'cancelled');

CREATE INDEX renders_going_on ON renders (updated_at)
WHERE
  state IN ('queued', 'running');

-- Which kinds of LUT file are read is said in one place, core/formats/lut-file.ts.
ALTER TABLE luts
DROP CONSTRAINT luts_format_check;

ALTER TABLE luts
ADD CONSTRAINT luts_format_check CHECK (format ~ '^[a-z0-9-]{1,20}$');
