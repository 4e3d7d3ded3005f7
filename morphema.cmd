@echo off
rem Starts Morphema. In a checkout it builds what it needs on its first use.
setlocal
set "HOME_DIR=%~dp0"
set "JAR=%HOME_DIR%morphema-cli\target\morphema.jar"
set "JAVA=java"
if defined JAVA_HOME if exist "%JAVA_HOME%\bin\java.exe" set "JAVA=%JAVA_HOME%\bin\java.exe"
if not exist "%JAR%" (
  echo morphema: building, once; this takes a minute or two ... 1>&2
  pushd "%HOME_DIR%"
  call mvn -B -q -ntp -DskipTests -pl morphema-cli -am package 1>&2
  if errorlevel 1 (
    popd
    echo morphema: the build failed; its output is above 1>&2
    exit /b 4
  )
  popd
)
if defined MORPHEMA_DRIVERS set "DRIVERS=;%MORPHEMA_DRIVERS%\*"
"%JAVA%" -XX:FreqInlineSize=64 -XX:-UsePerfData %MORPHEMA_JAVA_OPTIONS% -XX:+UseSerialGC -Xshare:auto -cp "%JAR%%DRIVERS%" dev.morphema.cli.Main %*
exit /b %ERRORLEVEL%
