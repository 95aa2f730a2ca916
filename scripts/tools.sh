# Finds or installs the tools that building and running take.

install_packages() {
    [ "$(id -u)" = 0 ] || die "These Debian packages are missing: $*. Install them with 'apt-get install $*' and try again."
    command -v apt-get >/dev/null || die "These packages are missing and there is no apt-get to install them: $*."
    need_disk
    say "Installing $* ..."
    mkdir -p "$POLYCLAVE_HOME/log"
    apt-get update >"$POLYCLAVE_HOME/log/apt.log" 2>&1 || true
    DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "$@" >>"$POLYCLAVE_HOME/log/apt.log" 2>&1 ||
        die "apt-get could not install $*. See $POLYCLAVE_HOME/log/apt.log."
}

need_java() {
    JAVA_HOME=$(ls -d /usr/lib/jvm/java-17-openjdk-* 2>/dev/null | head -n 1)
    if [ -z "$JAVA_HOME" ] || [ ! -x "$JAVA_HOME/bin/javac" ]; then
        make_home
        install_packages openjdk-17-jdk-headless
        JAVA_HOME=$(ls -d /usr/lib/jvm/java-17-openjdk-* | head -n 1)
    fi
    JAVA=$JAVA_HOME/bin/java
    export JAVA_HOME
}

need_node() {
    if [ -x "$POLYCLAVE_HOME/node/node_modules/node/bin/node" ]; then
        PATH="$POLYCLAVE_HOME/node/node_modules/node/bin:$PATH"
        export PATH
    fi
    command -v npm >/dev/null || install_packages nodejs npm
    node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' && return
    say "Installing Node 20 from the npm registry ..."
    mkdir -p "$POLYCLAVE_HOME/node" "$POLYCLAVE_HOME/log"
    npm install --silent --no-audit --no-fund --prefix "$POLYCLAVE_HOME/node" node@20.19.5 >"$POLYCLAVE_HOME/log/node.log" 2>&1 ||
        die "Node 20.19 or newer is needed and could not be installed. See $POLYCLAVE_HOME/log/node.log."
    PATH="$POLYCLAVE_HOME/node/node_modules/node/bin:$PATH"
    export PATH
}

need_build_tools() {
    make_home
    need_java
    command -v mvn >/dev/null || install_packages maven
    need_node
}

need_postgres() {
    PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
    if [ -z "$PG_BIN" ] || [ ! -x "$PG_BIN/initdb" ]; then
        make_home
        if [ "$(id -u)" = 0 ]; then
            # No default cluster is to appear on port 5432.
            mkdir -p /etc/postgresql-common
            grep -qs '^create_main_cluster' /etc/postgresql-common/createcluster.conf ||
                echo 'create_main_cluster = false' >>/etc/postgresql-common/createcluster.conf
        fi
        install_packages postgresql
        PG_BIN=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1)
    fi
}

need_chromium() {
    [ -x /usr/bin/chromium-headless-shell ] || install_packages chromium-headless-shell
}

# The jar of a module with a classifier.
jar_of() {
    ls "$ROOT/$1/target/polyclave-$1-"*"-$2.jar" 2>/dev/null | head -n 1
}

# Whether a jar is missing, or something in the given folders is newer than its build. Jars carry a fixed date, so that
# builds are reproducible; the stamp beside them tells when they were made.
is_stale() {
    jar=$1
    built=$(dirname "${jar:-/none/none}")/built.stamp
    shift
    [ -z "$jar" ] || [ ! -f "$built" ] ||
        [ -n "$(find "$@" -newer "$built" -type f -not -path '*/target/*' -not -path '*/node_modules/*' -not -path '*/dist/*' \
            -not -name schema.d.ts -print 2>/dev/null | head -n 1)" ]
}

maven() {
    need_disk
    [ -w "$ROOT" ] || die "Polyclave must be built, and $(id -un 2>/dev/null || id -u) cannot write to $ROOT. Build it as its owner, or work in a copy of your own."
    mkdir -p "$POLYCLAVE_HOME/log"
    (cd "$ROOT" && mvn -B -q "$@") >"$POLYCLAVE_HOME/log/build.log" 2>&1 || {
        tail -n 40 "$POLYCLAVE_HOME/log/build.log" >&2
        die "The build failed. The whole output is in $POLYCLAVE_HOME/log/build.log."
    }
}

build_cli() {
    cli_sources="$ROOT/core/src $ROOT/study/src $ROOT/wording/src $ROOT/files/src $ROOT/print/src $ROOT/cli/src $ROOT/docs/format $ROOT/pom.xml"
    # shellcheck disable=SC2086
    if is_stale "$(jar_of cli all)" $cli_sources; then
        need_build_tools
        echo "Building the commands ..." >&2
        maven -DskipTests -pl cli -am package
        touch "$ROOT/cli/target/built.stamp"
    fi
}

build_server() {
    # shellcheck disable=SC2086
    if is_stale "$(jar_of server exec)" "$ROOT/core/src" "$ROOT/study/src" "$ROOT/wording/src" "$ROOT/files/src" "$ROOT/print/src" "$ROOT/demo/src" "$ROOT/server/src" "$ROOT/web" "$ROOT/docs/format" "$ROOT/pom.xml" "$ROOT/openapi.json"; then
        need_build_tools
        say "Building (a few minutes the first time) ..."
        maven -DskipTests -pl server -am package
        touch "$ROOT/server/target/built.stamp"
    fi
}

build_all() {
    maven -DskipTests package
}
