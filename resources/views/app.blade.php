<!doctype html>
<html lang="{{ app()->getLocale() }}"{!! $marks !!}>
    <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <title>Vivid Ledger</title>
        {{-- In the page itself: one request less before anything can be read. --}}
        <link rel="icon" type="image/svg+xml" href="data:image/svg+xml;base64,{{ $icon }}">
        <link rel="manifest" href="/manifest.webmanifest">
        <meta name="theme-color" content="#241d45">
        @auth
        <meta name="signed-in" content="yes">
        @foreach (['session', 'schema', 'people'] as $asked)
        <link rel="preload" as="fetch" href="/api/{{ $asked }}" crossorigin="anonymous">
        @endforeach
        @endauth
        @vite('resources/js/main.ts')
        @foreach ($ahead as $file)
        <link rel="modulepreload" href="{{ $file }}">
        @endforeach
    </head>
    <body>
        {{-- The desk stands there at once; what lies on it comes when the words are there. --}}
        <div id="app">@auth<div class="starting"><span>Vivid Ledger</span></div>@endauth</div>
    </body>
</html>
