#!/usr/bin/env bash
# Tries the launcher as people and machines do: starts, kills, half-made things, strangers, backups. Run by ./yarrek test with
# the application that was just built. Usage: .ci/launcher.sh APP_JAR
set -uo pipefail

ROOT="$(cd "$(dirname "$0")/.." && pwd)"
JAR="$1"
WORK="$(mktemp -d /tmp/yarrek-launcher.XXXXXX)"
FAILED=0
STRANGERS=()

cleanup() {
  local home
  for home in "$WORK"/*/; do YARREK_HOME="${home%/}" "$ROOT/yarrek" stop >/dev/null 2>&1; done
  [ "${#STRANGERS[@]}" = 0 ] || kill "${STRANGERS[@]}" 2>/dev/null
  rm -rf "$WORK"
}
trap cleanup EXIT

JAVA="$("$ROOT/yarrek" java-home)/bin/java"
"$JAVA" -Djarmode=tools -jar "$JAR" extract --destination "$WORK/built" >/dev/null || exit 1
"$ROOT/yarrek" stamp >"$WORK/stamp"

# a home in which the application is built already
home() {
  mkdir -p "$WORK/$1"
  cp -r "$WORK/built" "$WORK/$1/app"
  if [ -f "$WORK/classes.jsa" ]; then cp -p "$WORK/classes.jsa" "$WORK/$1/app/"; fi
  cp "$WORK/stamp" "$WORK/$1/app.stamp"
}

# yarrek HOME COMMAND...: what it says is in $SAID, how it ended in $RC
yarrek() {
  local home="$WORK/$1"
  shift
  SAID="$(YARREK_HOME="$home" YARREK_PORT=8300 "$ROOT/yarrek" "$@" 2>&1)"
  RC=$?
}

wrong() {
  FAILED=$((FAILED + 1))
  printf '  WRONG %s\n    %s\n' "$1" "${SAID:-}"
}
ends_with() { [ "$RC" = "$1" ] || wrong "$2: ended with $RC and not $1"; }
says() { case "$SAID" in *"$1"*) ;; *) wrong "$2: does not say “$1”" ;; esac; }
answers() { curl -fsS -m 10 -o /dev/null "http://127.0.0.1:$(cat "$WORK/$1/app.port")/login" || wrong "$2: no answer"; }
process() { cut -d' ' -f1 "$WORK/$1/$2.pid"; }
sql() { mariadb --no-defaults --socket="$WORK/$1/db.sock" -u root -N yarrek -e "$2"; }
try() { printf 'launcher: %s\n' "$1"; }

try "a first start, and the same again"
home one
yarrek one start
ends_with 0 start
says "running at http://127.0.0.1:" start
answers one start
cp -p "$WORK/one/app/classes.jsa" "$WORK/classes.jsa" 2>/dev/null
yarrek one start
ends_with 0 again
says "already running at" again

try "the database killed while its port is taken by a stranger: the application follows it"
port="$(cat "$WORK/one/db.port")"
kill -9 "$(process one db)"
perl -MIO::Socket::INET -e 'my $s; until ($s = IO::Socket::INET->new(Listen => 5, LocalAddr => "127.0.0.1", LocalPort => $ARGV[0], ReuseAddr => 1)) { select undef, undef, undef, 0.1 } $| = 1; print "taken\n"; sleep 600' "$port" >"$WORK/taken" &
STRANGERS+=($!)
until [ -s "$WORK/taken" ]; do :; done
yarrek one start
ends_with 0 "database on another port"
says "started anew" "database on another port"
answers one "database on another port"

try "the application killed while it starts"
yarrek one stop
(YARREK_HOME="$WORK/one" YARREK_PORT=8300 "$ROOT/yarrek" start >/dev/null 2>&1) &
start=$!
until [ -s "$WORK/one/app.pid" ]; do kill -0 "$start" 2>/dev/null || break; done
kill -9 "$(process one app)" 2>/dev/null
wait "$start"
yarrek one start
ends_with 0 "after a kill at the start"
answers one "after a kill at the start"

try "an application that is stopped is not said to run"
kill -STOP "$(process one app)"
yarrek one start
ends_with 1 "stopped application"
says "is held" "stopped application"
kill -CONT "$(process one app)"
yarrek one start
ends_with 0 "going on"

try "a backup restored beside says the same"
yarrek one backup "$WORK/all.tar.gz"
ends_with 0 backup
home two
yarrek two restore "$WORK/all.tar.gz"
ends_with 0 restore
for table in operator app_user flyway_schema_history paper_kind; do
  [ "$(sql one "checksum table $table" | cut -f2)" = "$(sql two "checksum table $table" | cut -f2)" ] || wrong "restored $table differs"
done
yarrek two start
ends_with 0 "start of what was restored"
answers two "start of what was restored"
yarrek two restore "$WORK/all.tar.gz"
ends_with 1 "restore while it runs"
says "stop first" "restore while it runs"
yarrek two stop

try "a backup of a newer program, a damaged one and no backup at all are refused"
mkdir "$WORK/newer" && tar -xzf "$WORK/all.tar.gz" -C "$WORK/newer"
sed -i 's/^migration .*/migration 9999/' "$WORK/newer/about.txt"
tar -C "$WORK/newer" -czf "$WORK/newer.tar.gz" .
yarrek two restore "$WORK/newer.tar.gz"
ends_with 1 newer
says "newer Yarrek" newer
tar -xzf "$WORK/all.tar.gz" -C "$WORK/newer" && echo "-- more" >>"$WORK/newer/database.sql"
tar -C "$WORK/newer" -czf "$WORK/damaged.tar.gz" .
yarrek two restore "$WORK/damaged.tar.gz"
ends_with 1 damaged
says "damaged" damaged
yarrek two restore "$JAR"
ends_with 1 "no backup"
says "no backup of Yarrek" "no backup"
rm -rf "$WORK/newer"

try "nobody else's process is ended"
yarrek one stop
ends_with 0 stop
sleep 600 &
STRANGERS+=($!)
echo "$!" >"$WORK/one/app.pid"
(exec -a "java -Dyarrek.home=$WORK/one2 x" sleep 600) &
STRANGERS+=($!)
echo "$!" >"$WORK/one/db.pid"
yarrek one stop
for p in "${STRANGERS[@]}"; do kill -0 "$p" 2>/dev/null || wrong "a stranger was ended"; done

try "a database directory that was only half made is made anew"
home three
mkdir -p "$WORK/three/db/mysql"
yarrek three start
ends_with 0 "half made"
says "half made" "half made"
answers three "half made"
yarrek three stop

try "two first starts at the same moment"
home four
home five
(YARREK_HOME="$WORK/four" YARREK_PORT=8310 "$ROOT/yarrek" start >"$WORK/four.txt" 2>&1) &
other=$!
yarrek five start
ends_with 0 "one of two"
wait "$other" || wrong "the other of two: $(cat "$WORK/four.txt")"
answers four "one of two"
answers five "the other of two"
yarrek four stop
yarrek five stop

try "a blank in the path, a directory of somebody else"
mkdir "$WORK/a blank"
yarrek "a blank" start
ends_with 1 blank
says "has a blank in its path" blank
if [ "$(id -u)" = 0 ]; then
  mkdir "$WORK/theirs" && chown nobody "$WORK/theirs"
  yarrek theirs start
  ends_with 1 theirs
  says "belongs to nobody" theirs
fi

[ "$FAILED" = 0 ] || {
  echo "launcher: $FAILED wrong"
  exit 1
}
echo "launcher: all as it should be"
