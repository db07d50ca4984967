#!/usr/bin/env bash
# Kills the application and its database again and again while logs are brought in, tables uploaded, masses changed on which
# jobs are judged again, and backups taken; and looks each time whether everything that was acknowledged is there, once and
# whole, and judged. Usage: bench/kill.sh ROUNDS (200 take some two hours)
set -uo pipefail

ROUNDS="${1:-20}"
ROOT="$(cd "$(dirname "$0")/.." && pwd)"
export YARREK_HOME="${YARREK_HOME:-/tmp/yarrek-kill}"
export YARREK_PORT="${YARREK_PORT:-8170}"
WORK="$(mktemp -d)"
TOKEN="yrk_kill-test-token-of-this-run"
trap 'touch "$WORK/stop"; wait; "$ROOT/yarrek" stop >/dev/null; rm -rf "$WORK"' EXIT

sql() { mariadb --no-defaults --socket="$YARREK_HOME/db.sock" -u root -N yarrek_demo "$@"; }
start() { "$ROOT/yarrek" demo >"$WORK/start.txt" 2>&1 || { cat "$WORK/start.txt"; exit 1; }; }
address() { echo "http://127.0.0.1:$(cat "$YARREK_HOME/app.port")"; }

# a flight of a minute at a time that no other has
track() {
  local start="$1" i
  echo '<gpx version="1.1" creator="kill"><trk><trkseg>'
  for i in $(seq 0 5 90); do
    printf '<trkpt lat="%s" lon="-17.7"><ele>%s</ele><time>%s</time></trkpt>\n' "46.7$(printf %03d "$i")" \
      "$((i > 10 && i < 80 ? 40 : 10))" "$(date -u -d "@$((start + i))" +%FT%TZ)"
  done
  echo '</trkseg></trk></gpx>'
}

bring_logs() {
  local n=0 file answer
  while [ ! -e "$WORK/stop" ]; do
    n=$((n + 1))
    file="$WORK/log-$1-$n.gpx"
    track "$((1700000000 + $1 * 5000000 + n * 600 + ROUND * 100000))" >"$file"
    answer="$(curl -s -m 20 -o /dev/null -w '%{http_code}' -H "Authorization: Bearer $TOKEN" -F "file=@$file" "$(address)/api/v1/logs")"
    if [ "$answer" = 201 ]; then sha256sum "$file" | cut -d' ' -f1 >>"$WORK/acknowledged"; fi
    rm -f "$file"
  done
}

change() {
  curl -s -m 20 -o /dev/null -w '%{http_code}' -H "Authorization: Bearer $TOKEN" -H 'Content-Type: application/json' \
    -d "$2" "$(address)/api/v1/registers/$1"
}

enter_people() {
  local n=0 name answer
  while [ ! -e "$WORK/stop" ]; do
    n=$((n + 1))
    name="Kill $ROUND $n"
    answer="$(change crew "[{\"name\":\"$name\"}]")"
    if [ "$answer" = 200 ] || [ "$answer" = 201 ]; then echo "$name" >>"$WORK/people"; fi
  done
}

# a mass on which builds stand, so that their jobs have to be judged again
change_masses() {
  local n=0 answer
  while [ ! -e "$WORK/stop" ]; do
    n=$((n + 1))
    answer="$(change accessories "[{\"name\":\"$LAMP\",\"mass\":\"$((10 + ROUND % 50)).$((n % 10))$((n / 10 % 10)) g\"}]")"
    if [ "$answer" = 200 ] || [ "$answer" = 201 ]; then echo "$ROUND $n" >>"$WORK/masses"; fi
  done
}

take_backups() {
  while [ ! -e "$WORK/stop" ]; do
    rm -f "$WORK/backup.tar.gz"
    if "$ROOT/yarrek" backup "$WORK/backup.tar.gz" >"$WORK/backup.txt" 2>&1; then
      # what is called a backup is whole, whatever was killed a moment later
      if tar -xzOf "$WORK/backup.tar.gz" ./database.sql | tail -3 | grep -q 'Dump completed'; then
        echo "$ROUND" >>"$WORK/backups"
        mv -f "$WORK/backup.tar.gz" "$WORK/last-backup.tar.gz"
      else
        echo "$ROUND" >>"$WORK/broken-backups"
      fi
    fi
    sleep 1
  done
}

# how many of the lines of a file are not in what a query answers exactly once
missing_of() { sort "$1" >"$WORK/wanted"; sql -e "$2" | sort | uniq -u | comm -13 - "$WORK/wanted" | wc -l; }

start
user="$(sql -e "select id from app_user where login = 'manager'")"
sql -e "delete from api_token where name = 'kill test'; insert into api_token (id, user_id, name, token_hash, created_at, may_write, ends_at)
  values (uuid(), '$user', 'kill test', sha2('$TOKEN', 256), utc_timestamp(6), true, timestampadd(day, 2, utc_timestamp(6)))"
LAMP="$(sql -e "select a.name from accessory a join build_accessory b on b.accessory_id = a.id group by a.id order by count(*) desc limit 1")"
touch "$WORK/acknowledged" "$WORK/people" "$WORK/masses" "$WORK/backups" "$WORK/broken-backups"
bad=0
for ROUND in $(seq 1 "$ROUNDS"); do
  rm -f "$WORK/stop"
  bring_logs 1 & bring_logs 2 & enter_people & change_masses & take_backups &
  sleep "$((RANDOM % 8 + 2)).$((RANDOM % 10))"
  case $((RANDOM % 3)) in
    0) what=application; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/app.pid")" ;;
    1) what=database; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/db.pid")" ;;
    *) what=both; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/app.pid")" "$(cut -d' ' -f1 "$YARREK_HOME/db.pid")" ;;
  esac
  touch "$WORK/stop"
  wait
  start
  for _ in $(seq 1 60); do
    waiting="$(sql -e "select count(*) from work_item where state = 'W'")"
    [ "$waiting" = 0 ] && break
    sleep 1
  done
  lost="$(missing_of "$WORK/acknowledged" "select sha256 from flight_log")"
  lost=$((lost + $(missing_of "$WORK/people" "select name from person where name like 'Kill %'")))
  sound="$("$ROOT/yarrek" doctor 2>&1 | grep -E 'does not hold|consistency of yarrek_demo')"
  echo "round $ROUND: $what killed; acknowledged $(wc -l <"$WORK/acknowledged") logs, $(wc -l <"$WORK/people") people," \
    "$(wc -l <"$WORK/masses") masses, $(wc -l <"$WORK/backups") backups ($(wc -l <"$WORK/broken-backups") broken);" \
    "lost $lost; waiting to be judged $waiting; $sound"
  if [ "$lost$waiting" != 00 ] || [ -s "$WORK/broken-backups" ] || echo "$sound" | grep -q 'does not hold:'; then bad=$((bad + 1)); fi
done
echo "$ROUNDS rounds, $bad with something lost, unsound or not judged"
[ "$bad" = 0 ]
