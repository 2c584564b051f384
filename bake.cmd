@echo off
rem Bake's launcher on Windows: finds Java, builds when needed, then opens the window or runs a command.
setlocal enabledelayedexpansion
set "root=%~dp0"
if not defined JAVA_HOME (
  for /d %%d in ("%ProgramFiles%\Eclipse Adoptium\jdk-25*" "%ProgramFiles%\Java\jdk-25*" "%ProgramFiles%\Microsoft\jdk-25*") do set "JAVA_HOME=%%~d"
)
if not exist "%JAVA_HOME%\bin\java.exe" (
  echo bake: Java 25 or newer is needed: install a JDK 25 and set JAVA_HOME to it. 1>&2
  exit /b 1
)
if not exist "%root%target\built" (
  where mvn >nul 2>nul || (echo bake: Maven is needed to build: install maven 3.8 or newer. 1>&2 & exit /b 1)
  echo bake: building, this happens once 1>&2
  pushd "%root%" & call mvn -q -B -DskipTests package || (popd & exit /b 1)
  popd
  if not exist "%root%target" mkdir "%root%target"
  type nul > "%root%target\built"
)
set "options=--add-modules jdk.incubator.vector -XX:+UseParallelGC -Xms1g -XX:MaxRAMPercentage=70 --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow"
set "what=%~1"
if "%what%"=="" set "what=open"
if "%what%"=="demo" set "window=1"
if "%what%"=="open" set "window=1"
if defined window (
  "%JAVA_HOME%\bin\java" %options% -cp "%root%desktop\target\*;%root%desktop\target\lib\*" bake.desktop.app.Launcher %*
) else (
  "%JAVA_HOME%\bin\java" %options% -Djava.awt.headless=true -cp "%root%cli\target\*;%root%cli\target\lib\*" bake.cli.Main %*
)
exit /b %errorlevel%
