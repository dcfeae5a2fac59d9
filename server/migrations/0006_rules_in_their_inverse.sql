-- A change of a run's house rules is taken back by the rules that held before, no longer by the row that holds them.
UPDATE "run_event" SET "inverse" = jsonb_build_object('do', 'rules', 'rules', h."data")
FROM "house_rules" h
WHERE "run_event"."inverse" ->> 'do' = 'rules' AND h."id" = ("run_event"."inverse" ->> 'houseRulesId')::uuid;
