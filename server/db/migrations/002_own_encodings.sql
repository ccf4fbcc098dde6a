-- Encodings that people measured, looked up or imported. Grades carry a copy of what they read by, so
-- removing one here harms no grade.
CREATE TABLE own_encodings (
  id text PRIMARY KEY CHECK (id ~ '^own-[A-Za-z0-9-]{1,40}$'),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  definition jsonb NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX own_encodings_by_name ON own_encodings (name, id);
