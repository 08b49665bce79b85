#!/bin/sh
# Copies all data of the server, also while it runs, and deletes the oldest copies.
#   backup.sh FOLDER COUNT
set -eu
folder=$1
count=$2
cd "$(dirname "$0")/.."
mkdir -p "$folder"
node scripts/schritt.mjs backup "$folder/schritt-$(date -u +%Y%m%dT%H%M%SZ).sqlite"
# names sort as times do
ls -1 "$folder"/schritt-*.sqlite | head -n -"$count" | while read -r old; do rm -- "$old"; done
