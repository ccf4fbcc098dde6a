-- Pictures of what a scene should feel like, made small by whoever brought them; they stand beside the words.
CREATE TABLE scene_pictures (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  scene_id uuid NOT NULL REFERENCES scenes (id) ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  width integer NOT NULL CHECK (width BETWEEN 1 AND 1024),
  height integer NOT NULL CHECK (height BETWEEN 1 AND 1024),
  png bytea NOT NULL CHECK (octet_length(png) <= 4194304),
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX scene_pictures_by_scene ON scene_pictures (scene_id);
