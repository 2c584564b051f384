#!/usr/bin/env bash
# Makes an application folder with its own Java runtime: target/package/Bake.
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd)
home=${1:-${JAVA_HOME:?JAVA_HOME must name a JDK 25}}
out="$root/target/package"
rm -rf "$out" "$root/target/package-input" "$root/target/runtime"
mkdir -p "$out" "$root/target/package-input"
fx=""
for j in "$root"/desktop/target/lib/*.jar; do
  case "$j" in
    */javafx-*-linux.jar|*/javafx-*-mac*.jar|*/javafx-*-win.jar) fx="$fx:$j" ;;
    */javafx-*) ;;
    *) cp "$j" "$root/target/package-input/" ;;
  esac
done
cp "$root"/desktop/target/desktop-*.jar "$root/target/package-input/"
"$home/bin/jlink" --module-path "$home/jmods${fx}" --output "$root/target/runtime" --strip-debug --no-header-files --no-man-pages \
  --add-modules java.base,java.desktop,java.logging,java.naming,java.sql,java.xml,java.management,jdk.unsupported,jdk.incubator.vector,jdk.zipfs,javafx.controls
"$home/bin/jpackage" --type app-image --name Bake --app-version 0.1.0 --dest "$out" --input "$root/target/package-input" \
  --main-jar "$(basename "$root"/desktop/target/desktop-*.jar)" --main-class bake.desktop.app.Launcher --runtime-image "$root/target/runtime" \
  --java-options "--add-modules=javafx.controls,jdk.incubator.vector --enable-native-access=ALL-UNNAMED,javafx.graphics --sun-misc-unsafe-memory-access=allow -XX:+UseParallelGC -XX:+UseTransparentHugePages -XX:MaxRAMPercentage=70"
echo "made $out/Bake, $(du -sm "$out/Bake" | cut -f1) MB"
