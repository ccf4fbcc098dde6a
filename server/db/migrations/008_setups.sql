-- Set-ups: shots of one project that are corrected together. A revision says whether it went to all of
-- them, so that undoing it does, too.
CREATE TABLE setups (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  created_at timestamptz NOT NULL DEFAULT now()
);

ALTER TABLE shots
ADD COLUMN setup_id uuid REFERENCES setups (id) ON DELETE SET NULL;

CREATE INDEX shots_by_setup ON shots (setup_id)
WHERE
  setup_id IS NOT NULL;

ALTER TABLE revisions
ADD COLUMN shared boolean NOT NULL DEFAULT false;
