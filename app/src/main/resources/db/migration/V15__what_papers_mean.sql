-- what a kind of paper means beyond its name: the fact it settles, whether it may be granted for one job, what it shows of
-- home, and which question of an application it answers
alter table paper_kind
  add column settles varchar(60) null,
  add column none_is_no boolean not null default false,
  add column also_for_job boolean not null default false,
  add column home varchar(16) null,
  add column opens_category boolean not null default false,
  add column answers varchar(20) null;

update paper_kind set settles = 'marked', none_is_no = true where code = 'markOnAircraft';
update paper_kind set settles = 'airworthinessCertificate' where code = 'airworthinessCertificate';
update paper_kind set settles = 'modelDeclarations' where code = 'modelDeclaration';
update paper_kind set also_for_job = true where code in ('operationalAuthorisation', 'operatorCertificate');
update paper_kind set opens_category = true where code = 'operationalAuthorisation';
update paper_kind set home = 'CERTIFICATE' where code = 'pilotCertificate';
update paper_kind set home = 'REGISTRATION' where code in ('aircraftRegistration', 'operatorRegistration');
update paper_kind set answers = 'registration' where code in ('operatorRegistration', 'operatorCertificate', 'operationalAuthorisation');
update paper_kind set answers = 'insurance' where code = 'liabilityInsurance';
update paper_kind set answers = 'invitation' where code in ('organiserInvitation', 'landownerPermission');
update paper_kind set answers = 'aircraft' where code in ('aircraftRegistration', 'markOnAircraft');
update paper_kind set answers = 'maintenance' where code = 'maintenanceRelease';
update paper_kind set answers = 'crew' where code in ('pilotCertificate', 'recencyProof', 'flightReview', 'radioCertificate');

-- permits that a rule asks for as a fact: one on file for the job answers it
insert into paper_kind (code, version, words, holder, levels, lead_days, renew_early_days, cost, currency, needs, insures, shown_to_officials,
    sort_order, settles, answers)
  values
    ('parkPermit', 0, 'park permit', 'job', '', 30, null, null, null, 'dates, area, purpose', null, true, 222, 'park.permit', 'invitation'),
    ('aerodromeAgreement', 0, 'agreement of the aerodrome', 'job', '', 14, null, null, null, 'dates, area, heights', null, true, 224,
      'aerodrome.agreement', 'invitation');
