<!doctype html>
<html lang="{{ $language }}">
    <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <meta name="robots" content="noindex">
        <title>{{ __('letters.title', [], $language) }}</title>
        @vite(['resources/css/slip.css'])
    </head>
    <body>
        <main>
            @if ($address === null)
                <h1>{{ __('letters.nowhere', [], $language) }}</h1>
                <p>{{ __('letters.open', [], $language) }}</p>
            @elseif ($isDone)
                <h1>{{ __('letters.done', [], $language) }}</h1>
                <p class="why" role="status">{{ __('letters.off', ['address' => $address], $language) }}</p>
            @else
                <h1>{{ __('letters.sure', [], $language) }}</h1>
                <p>{{ __('letters.would', ['address' => $address], $language) }}</p>
                <form method="post" action="{{ $action }}"><button type="submit">{{ __('letters.stop', [], $language) }}</button></form>
            @endif
        </main>
    </body>
</html>
