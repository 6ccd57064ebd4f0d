-- Up Migration
-- What happened in a shift, in order. The shift that is shown, exported and printed is what these make of it; the tables beside them
-- hold what the database itself decides by.
set search_path to geolabe;

create table shift_event (
  org text not null,
  shift uuid not null,
  seq bigint generated always as identity,
  at timestamptz not null default now(),
  actor text not null,
  kind text not null,
  body jsonb not null,
  primary key (org, shift, seq),
  foreign key (org, shift) references shift,
  foreign key (org, actor) references person
);
create trigger shift_event_kept before update or delete on shift_event for each row execute function refuse_change();
create trigger shift_event_never_emptied before truncate on shift_event for each statement execute function refuse_change();
-- Events are of the operator and of an open shift; what follows an override is somebody else's part, and may come later.
create function shift_event_own() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    if new.actor is distinct from geolabe.current_person() then
      raise exception 'an event is told by whoever did it' using errcode = 'GL003';
    end if;
    if new.kind <> 'override-followed' then
      perform geolabe.own_open_shift(new.org, new.shift);
    end if;
    new.at := now();
  end if;
  return new;
end $$;
create trigger shift_event_own before insert on shift_event for each row execute function shift_event_own();

alter table shift_event enable row level security;
alter table shift_event force row level security;
create policy own on shift_event using (org = current_org()) with check (org = current_org());
grant select, insert on shift_event to geolabe_app;
grant execute on function shift_event_own() to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop table shift_event;
drop function shift_event_own();
