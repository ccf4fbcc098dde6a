-- House standards of one's own, subjects, what a person pointed out in a shot, and readings that were waived.
CREATE TABLE own_standards (
  id text PRIMARY KEY CHECK (id ~ '^own-[A-Za-z0-9-]{1,40}$'),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  definition jsonb NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);

-- A person or thing that recurs. The card holds luma, chroma and hue as they were in the reference frame.
CREATE TABLE subjects (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  card jsonb NOT NULL,
  shot_id uuid REFERENCES shots ON DELETE SET NULL,
  frame integer NOT NULL CHECK (frame >= 0),
  area jsonb NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (project_id, name)
);

-- Where in a shot a grey card lies (subject_id is null), or a subject.
CREATE TABLE picks (
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  subject_id uuid REFERENCES subjects ON DELETE CASCADE,
  frame integer NOT NULL CHECK (frame >= 0),
  area jsonb NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

-- One card, and each subject once, in a shot.
CREATE UNIQUE INDEX one_card ON picks (shot_id)
WHERE
  subject_id IS NULL;

CREATE UNIQUE INDEX one_place ON picks (shot_id, subject_id)
WHERE
  subject_id IS NOT NULL;

-- The record of what was waived and taken up again: the newest row of a reading is how it stands.
CREATE TABLE waivers (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  reading text NOT NULL,
  subject text NOT NULL DEFAULT '',
  waived boolean NOT NULL,
  reason text NOT NULL CHECK (length(reason) <= 300),
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK (
    NOT waived
    OR length(reason) > 0
  )
);

CREATE INDEX waivers_newest ON waivers (shot_id, reading, subject, id DESC);

CREATE OR REPLACE FUNCTION refuse_change () RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% are append-only', TG_TABLE_NAME;
END $$;

CREATE TRIGGER waivers_append_only
BEFORE UPDATE ON waivers FOR EACH ROW
EXECUTE FUNCTION refuse_change ();
