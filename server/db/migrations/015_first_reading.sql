-- How a medium opens is kept with its guess; those looked through before this open as they were read.
UPDATE media
SET
  guess = guess || jsonb_build_object(
    'opening',
    jsonb_build_object(
      'encodingId',
      guess -> 'encodingId',
      'because',
      CASE
        WHEN (guess ->> 'tagged')::boolean THEN 'tag'
        ELSE 'sure'
      END,
      'asks',
      FALSE,
      'offers',
      '[]'::jsonb
    ),
    'codeCeiling',
    1
  )
WHERE
  guess IS NOT NULL;

-- Files of one camera and setting share this; empty for those that came before.
ALTER TABLE media
ADD COLUMN likeness text NOT NULL DEFAULT '';

CREATE INDEX media_likeness ON media (likeness)
WHERE
  likeness <> '';

-- A person said that the shot is meant to be seen as its file looks.
ALTER TABLE shots
ADD COLUMN stays_as_it_looks boolean NOT NULL DEFAULT FALSE;
