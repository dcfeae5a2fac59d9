-- A change of a run's house rules is taken back by the rules that held before, no longer by the row that holds them.
UPDATE "run_event" SET "inverse" = jsonb_build_object('do', 'rules', 'rules', h."data")
FROM "house_rules" h
WHERE "run_event"."inverse" ->> 'do' = 'rules' AND h."id" = ("run_event"."inverse" ->> 'houseRulesId')::uuid;
--> statement-breakpoint
-- Concluding is a property of every run, and no stage of its method any more: its record held nothing.
DELETE FROM "stage" USING "run" r, "method" m, jsonb_array_elements(m."data" -> 'stages') s
WHERE "stage"."run_id" = r."id" AND m."id" = r."method_id" AND m."version" = r."method_version"
  AND s ->> 'kind' = 'conclude' AND s ->> 'key' = "stage"."key";
--> statement-breakpoint
UPDATE "method" SET "data" = jsonb_set("data", '{stages}', (
  SELECT jsonb_agg(s ORDER BY n) FROM jsonb_array_elements("data" -> 'stages') WITH ORDINALITY AS x(s, n) WHERE s ->> 'kind' <> 'conclude'
))
WHERE "data" -> 'stages' @> '[{"kind": "conclude"}]';
