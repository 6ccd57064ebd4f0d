-- Up Migration
set search_path to geolabe;

-- What somebody practised. It proves nothing about a machine, a lift or a licence, and nothing else in the records reads it.
create table practice_run (
  org text not null,
  id uuid not null,
  person text not null,
  machine text not null,
  machine_revision integer not null check (machine_revision > 0),
  game text not null check (game in ('load')),
  -- Everything that was done: what follows from it is worked out again from this alone.
  run jsonb not null,
  result jsonb not null,
  score double precision not null check (score between 0 and 100),
  -- The device had made another score of it.
  claimed double precision,
  -- To the millisecond, as pages are asked for by it.
  at timestamptz not null default date_trunc('milliseconds', now()),
  primary key (org, id),
  foreign key (org, machine) references machine,
  foreign key (org, person) references person
);
create index practice_by_person on practice_run (org, person, at desc, id desc);
alter table practice_run enable row level security;
alter table practice_run force row level security;
-- Everybody sees their own, and nobody another's.
create policy own on practice_run using (org = current_org() and person = current_person())
  with check (org = current_org() and person = current_person());
grant select, insert on practice_run to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop table practice_run;
