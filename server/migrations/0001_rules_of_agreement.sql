-- House rules gained choices; rules made before them did as these say.
UPDATE "house_rules" SET "data" = "data" || jsonb_build_object(
  'agreementOf', 'titers',
  'outliers', 'none',
  'digits', 'uncertainty',
  'percentError', 'signed',
  'balance', ("data" -> 'balance') || '{"correctBuoyancy": false}'::jsonb
) WHERE NOT ("data" ? 'agreementOf');
