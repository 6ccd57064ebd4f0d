-- Up Migration
-- What holds against mistakes and attacks: writes known by who sent them and what they hold, sessions that end by themselves, devices
-- that a person used before.
set search_path to geolabe;

alter table applied add column fingerprint text not null default '';
create index applied_by_time on applied (at);

-- Answers are kept as long as a device may still ask for them: a tablet that was off for a month.
create function prune() returns void language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  delete from applied where at < now() - interval '45 days';
  delete from session where expires_at < now();
  delete from trusted_device where used_at < now() - interval '400 days';
  delete from throttle where expire is not null and expire < extract(epoch from now()) * 1000 - 3600000;
end $$;

alter table session add column used_at timestamptz not null default now();

create table trusted_device (
  org text not null,
  person text not null,
  device_hash text not null,
  used_at timestamptz not null default now(),
  primary key (org, person, device_hash),
  foreign key (org, person) references person
);

drop function session_begin(text, text, text, timestamptz);
create function session_begin(h text, o text, p text, until timestamptz, device text) returns void
language sql security definer set search_path = geolabe, pg_temp as $$
  insert into session (token_hash, org, person, expires_at) values (h, o, p, until);
  insert into trusted_device (org, person, device_hash) values (o, p, device)
    on conflict (org, person, device_hash) do update set used_at = now();
$$;

-- Signed on, and used within the time that a session may lie idle.
drop function session_find(text);
create function session_find(h text, idle interval) returns table (org text, person text)
language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  -- Written once a minute at the most: a session is read at every request.
  update session s set used_at = now() where s.token_hash = h and s.expires_at > now() and s.used_at > now() - idle
    and s.used_at < now() - interval '1 minute';
  return query select s.org, s.person from session s where s.token_hash = h and s.expires_at > now() and s.used_at > now() - idle;
end $$;

-- Of these sessions, those that still hold: for what stays open for hours.
create function sessions_alive(hashes text[], idle interval) returns setof text
language sql stable security definer set search_path = geolabe, pg_temp as
$$ select token_hash from session where token_hash = any(hashes) and expires_at > now() and used_at > now() - idle $$;

create or replace function session_end(h text) returns void
language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  delete from session where token_hash = h;
  perform pg_notify('geolabe_session', h);
end $$;

create function device_known(o text, b text, device text) returns boolean
language sql stable security definer set search_path = geolabe, pg_temp as $$
  select exists (select from trusted_device d join person p on p.org = d.org and p.id = d.person
    where d.org = o and p.badge = b and d.device_hash = device)
$$;

revoke execute on all functions in schema geolabe from public;
grant execute on all functions in schema geolabe to geolabe_app;

-- Down Migration
set search_path to geolabe;
do $$ begin raise exception 'the earlier schema has no place for fingerprints and devices'; end $$;
