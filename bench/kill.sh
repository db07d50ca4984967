#!/usr/bin/env bash
# Kills the application and its database again and again while logs are brought in and people entered, and looks each time
# whether everything that was acknowledged is there, once and whole. Usage: bench/kill.sh ROUNDS (200 take some two hours)
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

enter_people() {
  local n=0 name answer
  while [ ! -e "$WORK/stop" ]; do
    n=$((n + 1))
    name="Kill $ROUND $n"
    printf 'Name\n%s\n' "$name" >"$WORK/people.csv"
    answer="$(curl -s -m 20 -o /dev/null -w '%{http_code}' -H "Authorization: Bearer $TOKEN" -F "file=@$WORK/people.csv" "$(address)/api/v1/registers/crew")"
    if [ "$answer" = 200 ] || [ "$answer" = 201 ]; then echo "$name" >>"$WORK/people"; fi
  done
}

start
user="$(sql -e "select id from app_user where login = 'manager'")"
sql -e "delete from api_token where name = 'kill test'; insert into api_token (id, user_id, name, token_hash, created_at, may_write, ends_at)
  values (uuid(), '$user', 'kill test', sha2('$TOKEN', 256), utc_timestamp(6), true, timestampadd(day, 2, utc_timestamp(6)))"
touch "$WORK/acknowledged" "$WORK/people"
bad=0
for ROUND in $(seq 1 "$ROUNDS"); do
  rm -f "$WORK/stop"
  bring_logs 1 & bring_logs 2 & enter_people &
  sleep "$((RANDOM % 4 + 1)).$((RANDOM % 10))"
  case $((RANDOM % 3)) in
    0) what=application; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/app.pid")" ;;
    1) what=database; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/db.pid")" ;;
    *) what=both; kill -9 "$(cut -d' ' -f1 "$YARREK_HOME/app.pid")" "$(cut -d' ' -f1 "$YARREK_HOME/db.pid")" ;;
  esac
  touch "$WORK/stop"
  wait
  start
  for i in $(seq 1 60); do
    [ "$(sql -e "select count(*) from work_item where state = 'W'")" = 0 ] && break
    sleep 1
  done
  lost=0
  while read -r sum; do
    [ "$(sql -e "select count(*) from flight_log where sha256 = '$sum'")" = 1 ] || lost=$((lost + 1))
  done <"$WORK/acknowledged"
  while read -r name; do
    [ "$(sql -e "select count(*) from person where name = '$name'")" = 1 ] || lost=$((lost + 1))
  done <"$WORK/people"
  sound="$("$ROOT/yarrek" doctor 2>&1 | grep -E 'does not hold|consistency of yarrek_demo')"
  echo "round $ROUND: $what killed; acknowledged $(wc -l <"$WORK/acknowledged") logs, $(wc -l <"$WORK/people") people, lost $lost; $sound"
  if [ "$lost" != 0 ] || echo "$sound" | grep -q 'does not hold:'; then bad=$((bad + 1)); fi
done
echo "$ROUNDS rounds, $bad with something lost or unsound"
[ "$bad" = 0 ]
