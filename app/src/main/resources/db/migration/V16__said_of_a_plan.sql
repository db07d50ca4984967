-- what a plan says, by the words of the vocabulary: a new question needs no column
alter table job add column said json not null default '{}';

update job set said = json_merge_patch('{}', json_object(
  'purpose', purpose,
  'category', category,
  'subcategory', subcategory,
  'pilotDistanceM', concat(pilot_distance_m),
  'peopleDistanceM', concat(people_distance_m),
  'overPeople', over_people,
  'assembly', if(assembly is null, null, if(assembly, 'yes', 'no')),
  'sight', sight,
  'lowSpeedMode', if(low_speed is null, null, if(low_speed, 'yes', 'no')),
  'groundSpeedMps', concat(speed_mps),
  'structure.heightM', concat(structure_height_m),
  'structure.distanceM', concat(structure_distance_m),
  'structure.artificial', if(structure_artificial is null, null, if(structure_artificial, 'yes', 'no')),
  'structure.requestedByOwner', if(structure_requested is null, null, if(structure_requested, 'yes', 'no')),
  'emergency.ongoing', if(emergency is null, null, if(emergency, 'yes', 'no')),
  'dangerousGoodsOrDropping', if(dangerous is null, null, if(dangerous, 'yes', 'no')),
  'autoModesAmongObstacles', if(auto_modes is null, null, if(auto_modes, 'yes', 'no')),
  'weather.windMps', concat(wind_mps),
  'weather.temperatureC', concat(temperature_c),
  'pilot.fit', if(pilot_fit is null, null, if(pilot_fit, 'yes', 'no')),
  'pilot.hoursSinceAlcohol', concat(hours_since_alcohol)));

alter table job
  drop column purpose,
  drop column category,
  drop column subcategory,
  drop column pilot_distance_m,
  drop column people_distance_m,
  drop column over_people,
  drop column assembly,
  drop column sight,
  drop column low_speed,
  drop column speed_mps,
  drop column structure_height_m,
  drop column structure_distance_m,
  drop column structure_artificial,
  drop column structure_requested,
  drop column emergency,
  drop column dangerous,
  drop column auto_modes,
  drop column wind_mps,
  drop column temperature_c,
  drop column pilot_fit,
  drop column hours_since_alcohol;

-- other jobs of a site are looked up by it
alter table job add column emergency boolean as (json_value(said, '$."emergency.ongoing"') = 'yes') virtual;
