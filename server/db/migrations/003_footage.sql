-- Footage: fuller facts, what was found by looking through a clip, proxies, cuts, and work that runs in the background.
UPDATE media
SET
  facts = jsonb_build_object(
    'kind',
    'film',
    'pixelAspect',
    jsonb_build_array(1, 1),
    'rotation',
    0,
    'variableRate',
    NULL,
    'startTimecode',
    NULL,
    'container',
    '',
    'interlaced',
    NULL,
    'seekMarginSeconds',
    0.5,
    'storedFormat',
    facts -> 'pixelFormat',
    'matrixTagged',
    false,
    'durationSeconds',
    (facts ->> 'frameCount')::float8 * (facts ->> 'rateDenominator')::float8 / (facts ->> 'rateNumerator')::float8
  ) || facts;

ALTER TABLE media
-- The colour engine's answer for one frame, with its evidence.
ADD COLUMN guess jsonb,
-- Where the playback proxy is ready: its size and how to read it.
ADD COLUMN proxy jsonb;

-- What was measured of every frame, and the cuts that were found.
CREATE TABLE surveys (
  media_hash text PRIMARY KEY REFERENCES media ON DELETE CASCADE,
  luma real[] NOT NULL,
  sharpness real[] NOT NULL,
  cuts jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

ALTER TABLE shots
-- The piece of the medium that the shot is: frames first_frame up to first_frame + frame_count.
ADD COLUMN first_frame integer NOT NULL DEFAULT 0 CHECK (first_frame >= 0),
ADD COLUMN frame_count integer CHECK (frame_count >= 1),
-- The rate it is played at, where that is not the one it was shot at.
ADD COLUMN played_numerator integer CHECK (played_numerator > 0),
ADD COLUMN played_denominator integer CHECK (played_denominator > 0),
ADD COLUMN state text NOT NULL DEFAULT 'new' CHECK (
  state IN ('new', 'corrected', 'matched', 'finished')
),
-- True once a person chose the lead frame; until then it is proposed by measurement.
ADD COLUMN lead_chosen boolean NOT NULL DEFAULT false,
ADD CHECK (
  (played_numerator IS NULL) = (played_denominator IS NULL)
);

UPDATE shots s
SET
  frame_count = (m.facts ->> 'frameCount')::int,
  lead_chosen = true
FROM
  media m
WHERE
  m.hash = s.media_hash;

ALTER TABLE shots
ALTER COLUMN frame_count
SET NOT NULL;

CREATE INDEX shots_by_media ON shots (media_hash);

-- Positions are swapped within one statement when shots move.
ALTER TABLE shots
DROP CONSTRAINT shots_project_id_position_key,
ADD UNIQUE (project_id, position)
DEFERRABLE INITIALLY DEFERRED;

-- Imports and surveys, as the Reel shows them.
CREATE TABLE work (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  kind text NOT NULL CHECK (kind IN ('import', 'survey')),
  project_id uuid REFERENCES projects ON DELETE CASCADE,
  media_hash text REFERENCES media ON DELETE CASCADE,
  name text NOT NULL,
  payload jsonb NOT NULL,
  state text NOT NULL DEFAULT 'queued' CHECK (
    state IN (
      'queued',
      'running',
      'done',
      'failed',
      'cancelled'
    )
  ),
  stage text NOT NULL DEFAULT 'waiting',
  done integer NOT NULL DEFAULT 0,
  total integer NOT NULL DEFAULT 0,
  error text,
  hint text,
  actor text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX work_by_project ON work (project_id, created_at);

CREATE UNIQUE INDEX one_survey_at_a_time ON work (media_hash)
WHERE
  kind = 'survey'
  AND state IN ('queued', 'running');
