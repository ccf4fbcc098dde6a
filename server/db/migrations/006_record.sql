-- Why a revision was made, and versions: revisions that were given a name.
ALTER TABLE revisions
ADD COLUMN why jsonb;

CREATE TABLE versions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  revision_id uuid NOT NULL REFERENCES revisions ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (shot_id, name)
);
