@php
    $name = "answers[{$question->place}]";
    $id = "q{$question->place}";
    $only = $question->onlyIf === null ? '' : 'data-about='.$question->onlyIf['place'].' data-is="'.e($question->onlyIf['is']).'"';
    $wrong = $problem === '' ? '' : 'aria-invalid="true" aria-describedby="'.$id.'-problem"';
    $needed = $question->isNeeded ? 'required' : '';
@endphp
@if ($question->sort === 'pick' || $question->sort === 'several')
    <fieldset class="question" {!! $only !!} {!! $wrong !!}>
        <legend>{{ $question->label }} @unless ($question->isNeeded)<small>{{ $words->of('optional') }}</small>@endunless</legend>
        @foreach ($question->options as $option)
            <label class="option">
                <input
                    type="{{ $question->sort === 'pick' ? 'radio' : 'checkbox' }}"
                    name="{{ $name }}{{ $question->sort === 'pick' ? '' : '[]' }}"
                    value="{{ $option['value'] }}"
                    @checked($option['isOn'])>
                <span>{{ $option['label'] }}</span>
            </label>
        @endforeach
        @if ($problem !== '')<p class="problem" id="{{ $id }}-problem">{{ $problem }}</p>@endif
    </fieldset>
@elseif ($question->sort === 'tick')
    <div class="question" {!! $only !!}>
        <label class="option">
            <input type="checkbox" name="{{ $name }}" value="1" @checked($question->value !== '') {!! $wrong !!} {{ $needed }}>
            <span>{{ $question->label }}</span>
        </label>
        @if ($problem !== '')<p class="problem" id="{{ $id }}-problem">{{ $problem }}</p>@endif
    </div>
@else
    <div class="question" {!! $only !!}>
        <label for="{{ $id }}">{{ $question->label }}
            @if ($question->hint !== '')<small>{{ $question->hint }}</small>@endif
            @unless ($question->isNeeded)<small>{{ $words->of('optional') }}</small>@endunless
        </label>
        @if ($question->sort === 'lines')
            <textarea id="{{ $id }}" name="{{ $name }}" rows="4" {!! $wrong !!} {{ $needed }}>{{ $question->value }}</textarea>
        @elseif ($question->sort === 'file')
            <input id="{{ $id }}" type="file" name="{{ $name }}" {!! $wrong !!} {{ $needed }}>
        @else
            <input
                id="{{ $id }}"
                type="{{ $question->sort }}"
                name="{{ $name }}"
                value="{{ $question->value }}"
                @if ($question->inputMode !== '') inputmode="{{ $question->inputMode }}" @endif
                {!! $wrong !!}
                {{ $needed }}>
        @endif
        @if ($problem !== '')<p class="problem" id="{{ $id }}-problem">{{ $problem }}</p>@endif
    </div>
@endif
