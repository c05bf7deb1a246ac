-- Every material says which of the catalogue's it is. Those written down before are recognised by their names once:
-- the longest name of the catalogue that theirs begins with, or what the usual salts are called besides. A studio can
-- set it right on the material's page.

UPDATE "materials" AS m
SET "facts" = m."facts" || jsonb_build_object('catalogueKey', coalesce(
  (SELECT key FROM unnest(ARRAY[
    'weld', 'dyer-s-broom', 'sawwort', 'tansy', 'goldenrod', 'dyer-s-chamomile', 'marigold', 'dyer-s-coreopsis',
    'orange-cosmos', 'onion-skins', 'heather', 'birch-leaves', 'nettle', 'old-fustic', 'osage-orange',
    'black-oak-bark', 'buckthorn-berries', 'saffron', 'turmeric', 'pomegranate-rind', 'madder', 'indian-madder',
    'bedstraw-root', 'cochineal', 'lac', 'safflower', 'sappanwood', 'alkanet', 'logwood', 'orchil-lichens', 'indigo',
    'woad', 'japanese-indigo', 'walnut-hulls', 'cutch', 'alder-bark', 'alder-cones', 'oak-bark', 'black-tea',
    'avocado-stones-and-skins', 'eucalyptus-leaves', 'rhubarb-root', 'henna', 'annatto', 'elderberries',
    'black-hollyhock', 'potassium-alum', 'ammonium-alum', 'aluminium-sulphate', 'aluminium-acetate',
    'aluminium-triformate', 'aluminium-lactate', 'symplocos-leaves', 'soy-milk', 'iron-sulphate', 'copper-sulphate',
    'oak-galls', 'tannic-acid', 'myrobalan', 'sumac-leaves', 'tara', 'acorns', 'cream-of-tartar', 'soda-ash',
    'chalk', 'bicarbonate-of-soda', 'wheat-bran', 'glauber-s-salt', 'common-salt', 'hydrated-lime',
    'sodium-dithionite', 'fructose', 'white-vinegar', 'citric-acid', 'household-ammonia', 'wood-ash-lye',
    'iron-liquor', 'neutral-soap', 'chlorine-bleach'
  ]) AS key
  WHERE s.slug = key OR s.slug LIKE key || '-%' ORDER BY length(key) DESC LIMIT 1),
  CASE
    WHEN s.name ~* '^alum\M' AND s.name !~* 'bath' THEN 'potassium-alum'
    WHEN s.name ~* '\mtartar\M' THEN 'cream-of-tartar'
    WHEN s.name ~* '\m(ferrous|iron) (sulphate|sulfate)\M' THEN 'iron-sulphate'
    WHEN s.name ~* '\mcopper sulfate\M' THEN 'copper-sulphate'
    WHEN s.name ~* '\m(washing soda|sodium carbonate)\M' THEN 'soda-ash'
    WHEN s.name ~* '\mvinegar\M' THEN 'white-vinegar'
  END))
FROM (
  SELECT id, name,
    regexp_replace(regexp_replace(replace(lower(name), 'aluminum', 'aluminium'), '[^a-z]+', '-', 'g'), '-$', '') AS slug
  FROM "materials"
) AS s
WHERE s.id = m.id;
