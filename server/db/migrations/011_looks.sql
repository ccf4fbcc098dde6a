-- Shared looks: steps that a project or a scene puts on its shots by reference, with a strength for the scene
-- and for the shot.
CREATE TABLE looks (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  steps jsonb NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (project_id, name)
);

ALTER TABLE projects
ADD COLUMN look_id uuid REFERENCES looks (id) ON DELETE SET NULL,
ADD COLUMN look_strength real NOT NULL DEFAULT 1 CHECK (look_strength BETWEEN 0 AND 1);

ALTER TABLE scenes
ADD COLUMN look_id uuid REFERENCES looks (id) ON DELETE SET NULL,
ADD COLUMN look_strength real NOT NULL DEFAULT 1 CHECK (look_strength BETWEEN 0 AND 1);

ALTER TABLE shots
ADD COLUMN look_strength real NOT NULL DEFAULT 1 CHECK (look_strength BETWEEN 0 AND 1),
ADD COLUMN look_detached boolean NOT NULL DEFAULT false;

CREATE INDEX looks_by_project ON looks (project_id);

-- What a scene should feel like, in a few words; they stand beside the picture while grading.
ALTER TABLE scenes
ADD COLUMN intent text NOT NULL DEFAULT '' CHECK (length(intent) <= 400);
