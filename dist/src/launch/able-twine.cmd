@echo off
rem Runs Able Twine from where it was unpacked, by the Java that lies beside it, else by one of this machine.
setlocal
set "here=%~dp0.."
set "java=java"
if defined JAVA_HOME if exist "%JAVA_HOME%\bin\java.exe" set "java=%JAVA_HOME%\bin\java.exe"
if exist "%here%\runtime\bin\java.exe" set "java=%here%\runtime\bin\java.exe"
rem Room to begin with, unless options are given.
set "room=-Xms400m -Xmn24m"
if defined ABLE_TWINE_JAVA_OPTIONS set "room="
rem A Java from 19 on makes class data shared between starts by itself; an older one leaves the option out.
"%java%" @"%here%\lib\java.options" -XX:+AutoCreateSharedArchive -XX:SharedArchiveFile="%here%\lib\able-twine.jsa" %room% %ABLE_TWINE_JAVA_OPTIONS% -cp "%here%\lib\able-twine.jar" org.abletwine.cli.Main %*
exit /b %ERRORLEVEL%
