<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Message\Channel;
use VividLedger\Slip\SlipEvent;
use VividLedger\Slip\SlipEventKind;
use VividLedger\Slip\SlipStatus;
use VividLedger\Words\Words;

/** What happened on the way of a slip, as an entry keeps it, and in words. */
final class SlipTold
{
    /**
     * @param  list<SlipEvent>  $events
     * @param  list<array{asked: string, said: string, path?: string}>  $answers  in words, as they were given
     * @return array{happened: list<array<string, mixed>>, answers?: list<array{asked: string, said: string, path?: string}>} as an
     *     entry keeps it
     */
    public static function of(array $events, array $answers = []): array
    {
        return ['happened' => array_map(static fn (SlipEvent $event): array => array_filter([
            'kind' => $event->kind->value, 'to' => $event->to, 'instead' => $event->other, 'channel' => $event->channel?->value,
            'status' => $event->status?->value, 'path' => $event->path,
        ], static fn (?string $value): bool => $value !== null && $value !== ''), $events)]
            + ($answers === [] ? [] : ['answers' => $answers]);
    }

    public static function said(Kept $event): string
    {
        $to = $event->text('to') === '' ? Words::say('nobody') : $event->text('to');
        $by = match (Channel::tryFrom($event->text('channel'))) {
            Channel::Sms => Words::say(' by text message'),
            Channel::App => Words::say(' inside the application'),
            default => '',
        };

        return match (SlipEventKind::tryFrom($event->text('kind'))) {
            SlipEventKind::Sent => Words::say('{to} gets the slip{by}', to: $to, by: $by),
            SlipEventKind::Nudged => Words::say('{to} is reminded{by}', to: $to, by: $by),
            SlipEventKind::Unreached => Words::say('nobody could be written to: {path}', path: $event->text('path')),
            SlipEventKind::PassedOn => $event->text('instead') === '' ? Words::say('it goes to {to}{by}', to: $to, by: $by)
                : Words::say('{to} is asked{by}; {instead} did not answer', to: $to, by: $by, instead: $event->text('instead')),
            SlipEventKind::HandedOver => Words::say('{to} is asked{by}; {instead} has left', to: $to, by: $by,
                instead: $event->text('instead')),
            SlipEventKind::Answered => Words::say('{to} answered', to: $to),
            SlipEventKind::Corrected => Words::say('{to} corrected the answer', to: $to),
            SlipEventKind::SentAgain => Words::say('{to} gets the slip again{by}; the link sent before is void', to: $to, by: $by),
            SlipEventKind::Ended => Words::say(
                'the slip is {said}',
                said: SlipStatus::tryFrom($event->text('status'))?->said() ?? Words::say('over'),
            ),
            null => $event->text('kind'),
        };
    }

    /**
     * What was answered, as the event of it has it: all questions with their answers in one text.
     *
     * @param  array<array-key, mixed>  $data  of an entry
     * @return ?string null when it was not answered then for the first time
     */
    public static function answer(array $data): ?string
    {
        $kept = new Kept($data);
        $kind = SlipEventKind::tryFrom(($kept->rows('happened')[0] ?? new Kept([]))->text('kind'));

        return $kind !== SlipEventKind::Answered ? null : self::inOne(array_map(
            static fn (Kept $one): array => ['asked' => $one->text('asked'), 'said' => $one->text('said')],
            $kept->rows('answers'),
        ));
    }

    /** @param  list<array{asked: string, said: string, path?: string}>  $said */
    public static function inOne(array $said): string
    {
        return implode('; ', array_map(static fn (array $one): string => "{$one['asked']} {$one['said']}", $said));
    }

    /** @return list<string> "Is it done? Not done" */
    public static function answers(Kept $kept): array
    {
        return array_map(
            static fn (Kept $one): string => rtrim($one->text('asked'), ':').(str_ends_with($one->text('asked'), '?') ? ' ' : ': ')
                .$one->text('said'),
            $kept->rows('answers'),
        );
    }
}
