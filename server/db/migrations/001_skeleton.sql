-- Projects, scenes, media, shots, the append-only record of revisions, LUTs and render jobs.
CREATE TABLE projects (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  -- Set on data that the demo starter made, so that it is made once.
  demo_key text UNIQUE,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE scenes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  position integer NOT NULL,
  UNIQUE (project_id, position)
);

-- One row per distinct content. The bytes lie in the media store under the hash.
CREATE TABLE media (
  hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
  size_bytes bigint NOT NULL CHECK (size_bytes > 0),
  facts jsonb NOT NULL,
  -- Presentation time of every frame in seconds, in order: frame numbers are indexes into it.
  frame_times double precision[] NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE shots (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  project_id uuid NOT NULL REFERENCES projects ON DELETE CASCADE,
  scene_id uuid REFERENCES scenes ON DELETE SET NULL,
  media_hash text NOT NULL REFERENCES media,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 200),
  camera_name text,
  position integer NOT NULL,
  lead_frame integer NOT NULL DEFAULT 0 CHECK (lead_frame >= 0),
  -- The present revision, and the newest one on the path that redo follows.
  head_id uuid,
  tip_id uuid,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (project_id, position)
);

CREATE TABLE revisions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  parent_id uuid REFERENCES revisions,
  depth integer NOT NULL CHECK (depth >= 1),
  grade jsonb NOT NULL,
  summary text NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX revisions_by_shot ON revisions (shot_id, created_at);

CREATE INDEX revisions_by_parent ON revisions (parent_id);

ALTER TABLE shots
ADD FOREIGN KEY (head_id) REFERENCES revisions
DEFERRABLE INITIALLY DEFERRED,
ADD FOREIGN KEY (tip_id) REFERENCES revisions
DEFERRABLE INITIALLY DEFERRED;

-- The record is append-only: a revision is never changed.
CREATE FUNCTION refuse_change () RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'revisions are append-only';
END $$;

CREATE TRIGGER revisions_append_only
BEFORE UPDATE ON revisions FOR EACH ROW
EXECUTE FUNCTION refuse_change ();

CREATE TABLE luts (
  hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
  name text NOT NULL,
  title text NOT NULL,
  dimensions smallint NOT NULL CHECK (dimensions IN (1, 3)),
  size integer NOT NULL,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE renders (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  shot_id uuid NOT NULL REFERENCES shots ON DELETE CASCADE,
  revision_id uuid NOT NULL REFERENCES revisions,
  state text NOT NULL DEFAULT 'queued' CHECK (
    state IN (
      'queued',
      'running',
      'done',
      'failed',
      'cancelled'
    )
  ),
  frames_done integer NOT NULL DEFAULT 0,
  frames_total integer NOT NULL,
  error text,
  size_bytes bigint,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX renders_newest ON renders (created_at DESC);
