<!doctype html>
<html lang="en">
    <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <meta name="robots" content="noindex">
        <title>Letters</title>
        @vite(['resources/css/slip.css'])
    </head>
    <body>
        <main>
            @if ($address === null)
                <h1>This link leads nowhere</h1>
                <p>Open the letter again, or answer it and say that you want no more.</p>
            @elseif ($isDone)
                <h1>Done</h1>
                <p class="why" role="status">{{ $address }} gets no more reminders from us. Letters about what you ask of us still come.</p>
            @else
                <h1>No more reminders?</h1>
                <p>{{ $address }} would get no more reminders from us. Letters about what you ask of us would still come.</p>
                <form method="post" action="{{ $action }}"><button type="submit">Stop the reminders</button></form>
            @endif
        </main>
    </body>
</html>
