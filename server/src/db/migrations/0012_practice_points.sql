-- Up Migration
set search_path to geolabe;

alter table practice_run drop constraint practice_run_game_check;
alter table practice_run add constraint practice_run_game_check check (game in ('load', 'judge', 'signal', 'drive', 'sequence'));

-- What somebody got wrong in practice, on which kind of machine, and how long it lasts until it is asked again.
create table practice_point (
  org text not null,
  person text not null,
  kind text not null,
  game text not null check (game in ('load', 'judge', 'signal', 'drive', 'sequence')),
  point text not null,
  -- The machine on which it was shown last.
  machine text not null,
  half_life_days double precision not null check (half_life_days between 1 and 180),
  answered_at timestamptz not null,
  due_at timestamptz not null,
  primary key (org, person, kind, game, point),
  foreign key (org, machine) references machine,
  foreign key (org, person) references person
);
alter table practice_point enable row level security;
alter table practice_point force row level security;
-- Everybody sees their own, and nobody another's.
create policy own on practice_point using (org = current_org() and person = current_person())
  with check (org = current_org() and person = current_person());
grant select, insert, update on practice_point to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop table practice_point;
delete from practice_run where game <> 'load';
alter table practice_run drop constraint practice_run_game_check;
alter table practice_run add constraint practice_run_game_check check (game in ('load'));
