# Starting and stopping the web application.

PID_FILE=$POLYCLAVE_HOME/server.pid
PORT_FILE=$POLYCLAVE_HOME/server.port

# A number in the file may have become another program's, or the server of another checkout: only a server that was started
# with this very folder is ours.
server_pid() {
    pid=$(cat "$PID_FILE" 2>/dev/null || true)
    [ -n "$pid" ] && tr '\0' '\n' <"/proc/$pid/cmdline" 2>/dev/null | grep -qxF -- "-Dpolyclave.home=$POLYCLAVE_HOME" && echo "$pid"
}

need_port() {
    case $POLYCLAVE_PORT in
        '' | *[!0-9]*) die "POLYCLAVE_PORT is '$POLYCLAVE_PORT', which is not a number. Choose one from 1024 to 65535." ;;
    esac
    [ "$POLYCLAVE_PORT" -ge 1 ] && [ "$POLYCLAVE_PORT" -le 65535 ] ||
        die "POLYCLAVE_PORT is $POLYCLAVE_PORT. Choose a port from 1024 to 65535."
    [ "$(id -u)" = 0 ] || [ "$POLYCLAVE_PORT" -ge 1024 ] ||
        die "Only root may serve on port $POLYCLAVE_PORT. Choose one from 1024 to 65535 with POLYCLAVE_PORT."
}

# A port that somebody asked for is used or refused; otherwise the next free one is taken, and said.
choose_port() {
    port_in_use "$POLYCLAVE_PORT" || return 0
    [ -z "$POLYCLAVE_PORT_ASKED" ] ||
        die "Port $POLYCLAVE_PORT is in use by another program. Stop that, or choose another with POLYCLAVE_PORT=8421 ./polyclave ..."
    taken=$POLYCLAVE_PORT
    while port_in_use "$POLYCLAVE_PORT"; do
        POLYCLAVE_PORT=$((POLYCLAVE_PORT + 1))
    done
    say "Port $taken is in use by another program, so Polyclave takes $POLYCLAVE_PORT."
}

prepare() {
    make_home
    need_port
    if [ -n "$(server_pid || true)" ]; then
        die "Polyclave is running already (process $(server_pid)). Open http://127.0.0.1:$(serving_port) or stop it with './polyclave stop'."
    fi
    # Asked before the build, too, which takes minutes.
    choose_port
    need_java
    build_server
    if [ -z "${POLYCLAVE_DB_URL:-}" ]; then
        # A large import writes a gigabyte at once: enough room not to stop for a checkpoint again and again meanwhile.
        start_postgres pg -c shared_buffers=512MB -c max_wal_size=4GB -c checkpoint_timeout=15min
    fi
}

launch() {
    mkdir -p "$POLYCLAVE_HOME/log"
    trap 'say ""; say "Stopping ..."; stop; exit 0' INT TERM HUP
    choose_port
    start_server "$@"
    until is_serving; do
        if ! kill -0 "$launched" 2>/dev/null; then
            if [ -z "$POLYCLAVE_PORT_ASKED" ] && port_was_taken; then
                # Another program took it between the look and the server's own try.
                choose_port
                start_server "$@"
                continue
            fi
            tail -n 20 "$POLYCLAVE_HOME/log/server.log" >&2
            stop >/dev/null
            ! port_was_taken || die "Port $POLYCLAVE_PORT cannot be used. Choose another with POLYCLAVE_PORT."
            die "The server did not start. The whole output is in $POLYCLAVE_HOME/log/server.log."
        fi
        say_what_is_awaited
        sleep 0.5
    done
}

start_server() {
    : >"$POLYCLAVE_HOME/log/server.log"
    # A session of its own, so that Ctrl+C reaches the launcher only and it can stop everything in order.
    setsid "$JAVA" "-Dpolyclave.home=$POLYCLAVE_HOME" -XX:+UseSerialGC -Xms1g -Xmx2g -XX:MetaspaceSize=128m -jar "$(jar_of server exec)" "$@" >"$POLYCLAVE_HOME/log/server.log" 2>&1 </dev/null &
    launched=$!
    echo "$launched" >"$PID_FILE"
    echo "$POLYCLAVE_PORT" >"$PORT_FILE"
    began=$(date +%s)
    awaited=
    told=$began
}

# A living server is given the time it needs, however busy the machine; people are told what it is at.
say_what_is_awaited() {
    now=$(date +%s)
    [ $((now - told)) -ge 5 ] || return 0
    told=$now
    step=$(sed -n 's/.*DemoLoader *: //p' "$POLYCLAVE_HOME/log/server.log" | tail -n 1)
    step=${step:-The server is starting}
    [ "$step" != "$awaited" ] || step="still: $step"
    say "  $((now - began)) s: $step"
    awaited=${step#still: }
}

port_was_taken() {
    grep -qiE 'port [0-9]+ (was|is) already in use|Address already in use|Permission denied' "$POLYCLAVE_HOME/log/server.log"
}

is_serving() {
    grep -q 'Ready for readers' "$POLYCLAVE_HOME/log/server.log"
}

serving_port() {
    cat "$PORT_FILE" 2>/dev/null || echo "$POLYCLAVE_PORT"
}

demo() {
    prepare
    launch --polyclave.demo=true
    say ""
    say "Polyclave serves on http://127.0.0.1:$POLYCLAVE_PORT"
    say "Demo accounts (one click on the sign-in page):"
    say "  isolde / meadow-author     author of the demo study"
    say "  oswin  / meadow-scorer     second scorer"
    say "  petra  / meadow-reader     reader"
    say "  lark   / meadow-learner    learner"
    say "  warden / meadow-warden     administrator"
    say "Ctrl+C ends it; the data stay."
    while kill -0 "$launched" 2>/dev/null; do
        sleep 1 &
        wait $! || true
    done
    # Whoever stops it from elsewhere takes the file away, and may have started another since.
    [ "$(cat "$PID_FILE" 2>/dev/null)" = "$launched" ] || exit 0
    stop
    die "The server ended by itself. See $POLYCLAVE_HOME/log/server.log."
}

start() {
    prepare
    if [ ! -f "$POLYCLAVE_HOME/admin.password" ]; then
        (umask 077 && od -An -N12 -tx1 /dev/urandom | tr -d ' \n' >"$POLYCLAVE_HOME/admin.password")
    fi
    POLYCLAVE_FIRST_ADMIN_PASSWORD=$(cat "$POLYCLAVE_HOME/admin.password")
    export POLYCLAVE_FIRST_ADMIN_PASSWORD
    launch
    trap - INT TERM HUP
    say "Polyclave serves on http://127.0.0.1:$POLYCLAVE_PORT"
    say "In a new installation the first account is 'admin'; its password is in $POLYCLAVE_HOME/admin.password."
}

stop() {
    pid=$(server_pid || true)
    if [ -n "$pid" ]; then
        kill "$pid" 2>/dev/null || true
        tries=0
        while [ -d "/proc/$pid" ] && [ $tries -lt 80 ]; do
            tries=$((tries + 1))
            sleep 0.25
        done
        [ -d "/proc/$pid" ] && kill -9 "$pid" 2>/dev/null || true
    fi
    rm -f "$PID_FILE" "$PORT_FILE"
    PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
    if [ -n "$PG_BIN" ] && [ -d "$POLYCLAVE_HOME" ]; then
        choose_pg_data pg
        stop_postgres
    fi
    say "Stopped."
}

status() {
    pid=$(server_pid || true)
    if [ -n "$pid" ]; then
        say "The server is running (process $pid) on http://127.0.0.1:$(serving_port)."
    else
        say "The server is not running."
    fi
}

backup() {
    [ $# = 1 ] || { usage >&2; exit 64; }
    start_postgres pg
    # For its owner only, and without anybody's sessions. What was there stays until the new one is whole.
    (umask 077 && "$PG_BIN/pg_dump" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -Fc --exclude-table-data='spring_session*' --exclude-table-data=upload \
        -f "$1.part" polyclave) || { rm -f "$1.part"; die "The backup failed; $1 was not written."; }
    mv -f "$1.part" "$1"
    [ "$PG_STARTED" = yes ] && stop_postgres
    say "Written to $1."
}

restore() {
    [ $# = 1 ] && [ -f "$1" ] || { usage >&2; exit 64; }
    [ -z "$(server_pid || true)" ] || die "Stop the server first: './polyclave stop'."
    start_postgres pg
    tables=$("$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -d polyclave -tAc "select count(*) from information_schema.tables where table_schema = 'public'")
    [ "$tables" = 0 ] || die "The database is not empty. Restore into a new installation: set POLYCLAVE_HOME to a new folder."
    "$PG_BIN/pg_restore" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -d polyclave --exit-on-error --single-transaction "$1" || die "The file could not be restored; nothing was changed."
    [ "$PG_STARTED" = yes ] && stop_postgres
    say "Restored from $1."
}
