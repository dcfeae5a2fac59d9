-- House rules gained choices; rules made before them did as these say.
UPDATE "house_rules" SET "data" = "data" || jsonb_build_object(
  'agreementOf', 'titers',
  'outliers', 'none',
  'digits', 'uncertainty',
  'percentError', 'signed',
  'balance', ("data" -> 'balance') || '{"correctBuoyancy": false}'::jsonb
) WHERE NOT ("data" ? 'agreementOf');
--> statement-breakpoint
-- Equations of a method are a list, in the order in which they happen.
UPDATE "method" SET "data" = jsonb_set("data", '{equations}', coalesce((
  SELECT jsonb_agg(jsonb_build_object('name', entry.key, 'equation', entry.value))
  FROM jsonb_each_text("data" -> 'equations') AS entry
), '[]'::jsonb)) WHERE jsonb_typeof("data" -> 'equations') = 'object';
