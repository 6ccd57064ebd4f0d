-- Up Migration
set search_path to geolabe;

-- A place as somebody drew it, until a second person has looked at it there; what was drawn and said is kept.
create table place_drawing (
  org text not null,
  id uuid not null,
  place text not null,
  -- The revision that it was drawn over, and the one that it became.
  based_on integer not null,
  revision integer,
  document jsonb not null,
  why text not null check (why <> ''),
  drawn_by text not null,
  drawn_at timestamptz not null default now(),
  state text not null default 'open' check (state in ('open', 'taken', 'returned', 'replaced')),
  checked_by text,
  checked_at timestamptz,
  words text not null default '',
  primary key (org, id),
  foreign key (org, place) references place,
  foreign key (org, drawn_by) references person,
  foreign key (org, checked_by) references person
);
create unique index one_open_drawing on place_drawing (org, place) where state = 'open';
create index drawing_by_place on place_drawing (org, place, drawn_at);

create function drawing_guard() returns trigger language plpgsql as $$
begin
  if not geolabe.is_app() then
    return new;
  end if;
  perform geolabe.require_person();
  if tg_op = 'INSERT' then
    if new.drawn_by is distinct from geolabe.current_person() or new.state <> 'open' or new.checked_by is not null then
      raise exception 'a place is drawn in one’s own name, and is checked by nobody yet' using errcode = 'GL004';
    end if;
    return new;
  end if;
  if old.state <> 'open' or new.state = 'open' then
    raise exception 'what was decided of a drawing stands' using errcode = 'GL004';
  end if;
  -- A newer drawing takes its place; nobody has to have checked the older.
  if new.state = 'replaced' then
    return new;
  end if;
  if new.checked_by is distinct from geolabe.current_person() or (new.state = 'taken' and new.checked_by = old.drawn_by) then
    raise exception 'a second person checks a drawing, in their own name' using errcode = 'GL003';
  end if;
  if new.checked_by <> old.drawn_by and not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'a drawing is checked by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger drawing_guard before insert or update on place_drawing for each row execute function drawing_guard();
create trigger drawing_told after insert or update on place_drawing for each row execute function tell('places');

-- What stands at a place changes only by a drawing that was checked for just that revision.
create or replace function place_guard() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.require_person();
    if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
      raise exception 'a place is ruled by the person in charge or an administrator' using errcode = 'GL003';
    end if;
    if new.id is distinct from old.id or new.org is distinct from old.org or new.document->>'id' is distinct from old.id then
      raise exception 'a place keeps its name' using errcode = 'GL004';
    end if;
    if (new.document->'features' is distinct from old.document->'features' or new.document->'positions' is distinct from old.document->'positions')
      and not exists (
        select from geolabe.place_drawing d
        where d.org = new.org and d.place = new.id and d.state = 'taken' and d.revision = old.revision + 1
          and d.document->'features' = new.document->'features' and d.document->'positions' = new.document->'positions'
      ) then
      raise exception 'what stands at a place changes by a drawing that a second person has checked' using errcode = 'GL003';
    end if;
  end if;
  return new;
end $$;

alter table place_drawing enable row level security;
alter table place_drawing force row level security;
create policy own on place_drawing using (org = current_org()) with check (org = current_org());
grant select, insert on place_drawing to geolabe_app;
grant update (state, revision, checked_by, checked_at, words) on place_drawing to geolabe_app;
revoke execute on function drawing_guard() from public;
grant execute on function drawing_guard() to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop table place_drawing;
drop function drawing_guard();
