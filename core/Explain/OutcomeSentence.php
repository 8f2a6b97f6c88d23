<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Words\Words;

/** What a line did, in a few words. */
final class OutcomeSentence
{
    /** @param  Kept  $did  in words */
    public static function of(Kept $did): string
    {
        $on = $did->text('on') === '' ? '' : Words::say(' on {on}', on: $did->text('on'));
        $what = $did->text('label');

        return match ($did->text('kind')) {
            'set' => $did->is('changed') ? Words::say(
                '{what}{on} set to {after}',
                what: $what,
                on: $on,
                after: $did->text('after'),
            ) : Words::say('{what}{on} was {after} already', what: $what, on: $on, after: $did->text('after')),
            'failed' => Words::say('{what} could not be done: {why}', what: $what, why: $did->text('why')),
            'cut_off' => Words::say('{what}: only {done} of {of} were taken', what: $what, done: $did->text('done'), of: $did->text('of')),
            'waits' => Words::say('{what} waits until {until}: {why}', what: $what, until: $did->text('until'), why: $did->text('why')),
            'dropped' => Words::say('{what} was dropped: {why}', what: $what, why: $did->text('why')),
            'case' => $what === '' ? Words::say('No case held: {why}', why: $did->text('why'))
                : ($did->text('why') === '' ? $what : Words::say('{case}: {why}', case: $what, why: $did->text('why'))),
            'skipped' => Words::say('Left out: {what}, {why}', what: $what, why: $did->text('why')),
            'message' => self::message($did),
            'created' => Words::say('Made {record}', record: $did->text('record')),
            'sign_off' => self::signOff($did),
            'slip' => self::slip($did),
            'call' => Words::counted(
                $did->number('fields'),
                '“{endpoint}” is called with {count} field|“{endpoint}” is called with {count} fields',
                endpoint: $did->text('endpoint'),
            ),
            'comment' => Words::say('Commented{on}: “{text}”', on: $on, text: $did->text('text')),
            'follow' => $did->is('follows') ? Words::say('{person} follows it', person: $did->text('person'))
                : Words::say('{person} follows it no more', person: $did->text('person')),
            default => Words::say(
                'Task “{title}” to {person}{due}',
                title: $did->text('title'),
                person: $did->text('person') === '' ? Words::say('nobody') : $did->text('person'),
                due: $did->text('due') === '' ? '' : Words::say(', due {due}', due: $did->text('due')),
            ),
        };
    }

    private static function message(Kept $did): string
    {
        $subject = $did->text('subject') === '' ? '' : Words::quoted($did->text('subject')).' ';
        $missing = $did->texts('missing') === [] ? '' : Words::say(', without {missing}', missing: implode(', ', $did->texts('missing')));

        return Words::say('{channel} {subject}to {to}{missing}', channel: match ($did->text('channel')) {
            'email' => Words::say('E-mail'),
            'sms' => Words::say('Text message'),
            'app' => Words::say('Note'),
            default => Words::say('Message'),
        }, subject: $subject, to: $did->text('to'), missing: $missing);
    }

    private static function slip(Kept $did): string
    {
        return $did->text('to') === '' ? Words::say(
            'Reply slip “{subject}” reached nobody: {path}',
            subject: $did->text('subject'),
            path: $did->text('path'),
        )
            : Words::say(
                'Reply slip “{subject}” to {to}{by}',
                subject: $did->text('subject'),
                to: $did->text('to'),
                by: $did->text('channel') === 'sms' ? Words::say(' by text message') : '',
            );
    }

    private static function signOff(Kept $did): string
    {
        $asked = $did->texts('asked');

        return $asked === [] ? Words::say(
            'Sign-off {status} at once',
            status: $did->text('status'),
        ) : Words::say('Sign-off asked of {asked}', asked: Words::list($asked));
    }
}
