-- Up Migration
set search_path to geolabe;

-- What stands at a place is drawn anew by the person in charge or an administrator; every revision is kept.
create function place_guard() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.require_person();
    if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
      raise exception 'a place is drawn by the person in charge or an administrator' using errcode = 'GL003';
    end if;
    if new.id is distinct from old.id or new.org is distinct from old.org or new.document->>'id' is distinct from old.id then
      raise exception 'a place keeps its name' using errcode = 'GL004';
    end if;
  end if;
  return new;
end $$;
create trigger place_guard before update on place for each row execute function place_guard();
create trigger place_told after update on place for each row execute function tell('places');
grant update (document) on place to geolabe_app;
grant execute on function place_guard() to geolabe_app;

-- Down Migration
set search_path to geolabe;
revoke update (document) on place from geolabe_app;
drop trigger place_told on place;
drop trigger place_guard on place;
drop function place_guard();
