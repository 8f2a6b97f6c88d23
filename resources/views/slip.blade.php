<!doctype html>
<html lang="{{ $words->tag() }}">
    <head>
        <meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1">
        <meta name="robots" content="noindex">
        <title>{{ $subject }}</title>
        <link rel="icon" type="image/svg+xml" href="/mark.svg">
        @vite(['resources/css/slip.css', 'resources/js/slip.ts'])
    </head>
    <body>
        <main>
            <header><p>{{ $company }}</p></header>
            <h1>{{ $subject }}</h1>
            @if ($trouble !== '')
                <p class="trouble" role="alert">{{ $trouble }}</p>
            @endif
            @if ($html !== '')
                <div class="shown">{!! $html !!}</div>
            @endif
            @if ($why !== '')
                <p class="why" role="status">{{ $why }}</p>
            @endif
            @if ($said !== [])
                <dl>
                    @foreach ($said as $one)
                        <div><dt>{{ $one['asked'] }}</dt><dd>{{ $one['said'] }}</dd></div>
                    @endforeach
                </dl>
            @endif
            @if ($mayCorrect)
                <p><a class="again" href="{{ $action }}?again=1">{{ $words->of('again') }}</a></p>
            @endif
            @if ($asks)
                <form method="post" action="{{ $action }}" enctype="multipart/form-data" novalidate data-slip
                    data-kept-said="{{ $words->of('kept') }}" data-not-kept="{{ $words->of('not_kept') }}">
                    @if (str_starts_with($action, '/slip/mine/'))
                        @csrf
                    @endif
                    @foreach ($questions as $question)
                        @include('question', ['problem' => $problems[(string) $question->place] ?? ''])
                    @endforeach
                    <button type="submit">{{ $words->of('send') }}</button>
                    <p class="kept" data-kept aria-live="polite"></p>
                </form>
            @endif
        </main>
    </body>
</html>
