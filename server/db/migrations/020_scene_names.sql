-- One scene of a name in a project. Later ones of the same name, if there ever were any, are told apart by their
-- number, and by a few letters where that is taken too.
WITH
  numbered AS (
    SELECT
      id,
      row_number() OVER (
        PARTITION BY
          project_id,
          name
        ORDER BY
          position,
          id
      ) AS n
    FROM
      scenes
  )
UPDATE scenes c
SET
  name = c.name || ' ' || n.n || CASE
    WHEN EXISTS (
      SELECT
        1
      FROM
        scenes o
      WHERE
        o.project_id = c.project_id
        AND o.name = c.name || ' ' || n.n
    ) THEN ' ' || left(c.id::text, 8)
    ELSE ''
  END
FROM
  numbered n
WHERE
  n.id = c.id
  AND n.n > 1;

CREATE UNIQUE INDEX scenes_by_name ON scenes (project_id, name);
