# Shared by the launcher's steps.

say() { printf '%s\n' "$*"; }

die() {
    printf 'polyclave: %s\n' "$*" >&2
    exit 70
}

make_home() {
    mkdir -p "$POLYCLAVE_HOME" 2>/dev/null && [ -w "$POLYCLAVE_HOME" ] && chmod 755 "$POLYCLAVE_HOME" 2>/dev/null ||
        die "Cannot write to $POLYCLAVE_HOME as $(id -un 2>/dev/null || id -u). Set POLYCLAVE_HOME to a folder of your own."
}

# Whether somebody listens on a port of this machine.
port_in_use() {
    hex=$(printf '%04X' "$1")
    cat /proc/net/tcp /proc/net/tcp6 2>/dev/null | awk -v p=":$hex" '$4 == "0A" && $2 ~ p"$" { found = 1 } END { exit !found }'
}

need_disk() {
    free=$(df -Pk "$ROOT" | awk 'NR == 2 { print $4 }')
    [ "$free" -gt 1500000 ] || die "Less than 1.5 GB are free on the disk of $ROOT. Make room and try again."
}
