-- What was said of a moment of a shot while it played.
CREATE TABLE moment_notes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  frame integer NOT NULL CHECK (frame >= 0),
  words text NOT NULL CHECK (length(words) BETWEEN 1 AND 300),
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX moment_notes_of_shot ON moment_notes (shot_id);

-- The stills of a project: a frame of a shot through one of its revisions, or a picture that was imported.
CREATE TABLE stills (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  notes text NOT NULL DEFAULT '' CHECK (length(notes) <= 400),
  revision_id uuid REFERENCES revisions ON DELETE CASCADE,
  frame integer CHECK (frame >= 0),
  width integer,
  height integer,
  png bytea,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((revision_id IS NULL) = (frame IS NULL)),
  CHECK ((revision_id IS NULL) = (png IS NOT NULL)),
  CHECK ((png IS NULL) = (width IS NULL)),
  CHECK ((width IS NULL) = (height IS NULL))
);

CREATE INDEX stills_of_project ON stills (project_id);
