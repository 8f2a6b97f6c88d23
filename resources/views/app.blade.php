<!doctype html>
<html lang="{{ app()->getLocale() }}">
    <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <title>Vivid Ledger</title>
        <link rel="icon" type="image/svg+xml" href="/mark.svg">
        <link rel="manifest" href="/manifest.webmanifest">
        <meta name="theme-color" content="#241d45">
        @auth
        <meta name="signed-in" content="yes">
        @endauth
        @vite('resources/js/main.ts')
    </head>
    <body>
        <div id="app"></div>
    </body>
</html>
