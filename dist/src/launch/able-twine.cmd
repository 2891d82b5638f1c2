@echo off
rem Runs Able Twine from where it was unpacked, by the Java that lies beside it, else by one of this machine.
setlocal
set "here=%~dp0.."
set "java=java"
if defined JAVA_HOME if exist "%JAVA_HOME%\bin\java.exe" set "java=%JAVA_HOME%\bin\java.exe"
if exist "%here%\runtime\bin\java.exe" set "java=%here%\runtime\bin\java.exe"
"%java%" @"%here%\lib\java.options" %ABLE_TWINE_JAVA_OPTIONS% -jar "%here%\lib\able-twine.jar" %*
exit /b %ERRORLEVEL%
