-- What each change is about (plant:…, place:…, population:…, keys, vocabulary): a device that was away fetches that anew, and nothing else.
-- Of changes before this it isn't known; no device has read them one by one.
alter table command add column about text[] not null default '{}';
