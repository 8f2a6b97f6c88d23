<?php

declare(strict_types=1);

namespace VividLedger\Explain;

/** What a line did, in a few words. */
final class OutcomeSentence
{
    private const CHANNELS = ['email' => 'E-mail', 'sms' => 'Text message', 'app' => 'Note'];

    /** @param  Kept  $did  in words */
    public static function of(Kept $did): string
    {
        $on = $did->text('on') === '' ? '' : " on {$did->text('on')}";
        $what = $did->text('label');

        return match ($did->text('kind')) {
            'set' => $did->is('changed') ? "{$what}{$on} set to {$did->text('after')}" : "{$what}{$on} was {$did->text('after')} already",
            'failed' => "{$what} could not be done: {$did->text('why')}",
            'cut_off' => "{$what}: only {$did->text('done')} of {$did->text('of')} were taken",
            'waits' => "{$what} waits until {$did->text('until')}: {$did->text('why')}",
            'dropped' => "{$what} was dropped: {$did->text('why')}",
            'skipped' => "Left out: {$what}, {$did->text('why')}",
            'message' => self::message($did),
            'created' => "Made {$did->text('record')}",
            'sign_off' => self::signOff($did),
            'slip' => self::slip($did),
            'call' => "“{$did->text('endpoint')}” is called with ".Headline::counted($did->number('fields'), 'field'),
            'comment' => "Commented{$on}: “{$did->text('text')}”",
            'follow' => $did->text('person').($did->is('follows') ? ' follows it' : ' follows it no more'),
            default => "Task “{$did->text('title')}” to ".($did->text('person') === '' ? 'nobody' : $did->text('person'))
                .($did->text('due') === '' ? '' : ", due {$did->text('due')}"),
        };
    }

    private static function message(Kept $did): string
    {
        $subject = $did->text('subject') === '' ? '' : "“{$did->text('subject')}” ";
        $missing = $did->texts('missing') === [] ? '' : ', without '.implode(', ', $did->texts('missing'));

        return (self::CHANNELS[$did->text('channel')] ?? 'Message')." {$subject}to {$did->text('to')}{$missing}";
    }

    private static function slip(Kept $did): string
    {
        return $did->text('to') === '' ? "Reply slip “{$did->text('subject')}” could be sent to nobody: {$did->text('path')}"
            : "Reply slip “{$did->text('subject')}” to {$did->text('to')}".($did->text('channel') === 'sms' ? ' by text message' : '');
    }

    private static function signOff(Kept $did): string
    {
        $asked = $did->texts('asked');

        return $asked === [] ? "Sign-off {$did->text('status')} at once" : 'Sign-off asked of '.implode(' and ', $asked);
    }
}
