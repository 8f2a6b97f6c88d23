<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/** What happened on the way of a sign-off, as an entry keeps it, and in words. */
final class SignOffTold
{
    /**
     * @param  list<SignOffEvent>  $events
     * @return array{happened: list<array<string, mixed>>} as an entry keeps it
     */
    public static function of(array $events): array
    {
        return ['happened' => array_map(static fn (SignOffEvent $event): array => array_filter([
            'kind' => $event->kind->value, 'step' => $event->step, 'person' => $event->person, 'other' => $event->other,
            'answer' => $event->answer?->value, 'comment' => $event->comment, 'status' => $event->status?->value,
        ], static fn (mixed $value): bool => $value !== null && $value !== ''), $events)];
    }

    /** @param  Kept  $event  with names in place of ids */
    public static function said(Kept $event): string
    {
        $who = $event->text('person') === '' ? Words::say('nobody') : $event->text('person');
        $why = $event->text('comment') === '' ? '' : ": “{$event->text('comment')}”";
        $step = Words::say('Step {step}', step: $event->number('step') + 1);

        return match (SignOffEventKind::tryFrom($event->text('kind'))) {
            SignOffEventKind::Asked => Words::say('{who} is asked', who: $who),
            SignOffEventKind::AskedAgain => Words::say('{who} is asked again', who: $who),
            SignOffEventKind::Reminded => Words::say('{who} is reminded', who: $who),
            SignOffEventKind::Said => self::answered($who, $event, $why),
            SignOffEventKind::Counted => $event->text('answer') === 'yes'
                ? Words::say('{who} did not answer in time, which counts as a yes', who: $who)
                : Words::say('{who} did not answer in time, which counts as a no', who: $who),
            SignOffEventKind::SaidBefore => Words::say('{who} has agreed before', who: $who),
            SignOffEventKind::PassedOn => Words::say('{who} is asked instead of {other}', who: $who, other: $event->text('other')),
            SignOffEventKind::StoodIn => Words::say('nobody was found, so {who} stands in', who: $who),
            SignOffEventKind::Deputised => Words::say('{who} is asked for {other}, who is absent', who: $who, other: $event->text('other')),
            SignOffEventKind::CameBack => Words::say('{who} is back, and is asked instead of {other}', who: $who,
                other: $event->text('other')),
            SignOffEventKind::HandedOver => Words::say('{other} gave it to {who}{why}', other: $event->text('other'), who: $who, why: $why),
            SignOffEventKind::Rerouted => Words::say(
                '{who} is asked instead of {other}: the way leads there now',
                who: $who,
                other: $event->text('other'),
            ),
            SignOffEventKind::AskedBack => Words::say('{who} asked {other}{why}', who: $who, other: $event->text('other'), why: $why),
            SignOffEventKind::AnsweredBack => Words::say('{who} answered {other}{why}', who: $who, other: $event->text('other'), why: $why),
            SignOffEventKind::WentOn => Words::say('the question of {who} stayed without an answer, and time goes on', who: $who),
            SignOffEventKind::RouteChanged => Words::say('the route was changed, and the step begins anew'),
            SignOffEventKind::StepAgreed => Words::say('{step} is agreed', step: $step),
            SignOffEventKind::StepLeftOut => Words::say('{step} is left out: its condition does not hold', step: $step),
            SignOffEventKind::Ended => Words::say(
                'the sign-off is {said}',
                said: SignOffStatus::tryFrom($event->text('status'))?->said() ?? Words::say('over'),
            ),
            null => $event->text('kind'),
        };
    }

    private static function answered(string $who, Kept $event, string $why): string
    {
        $isYes = $event->text('answer') === 'yes';
        // A deputy says it for somebody.
        if ($event->text('other') !== '') {
            $for = ['who' => $who, 'other' => $event->text('other'), 'why' => $why];

            return $isYes ? Words::say('{who} agreed for {other}{why}', ...$for) : Words::say('{who} declined for {other}{why}', ...$for);
        }

        return $isYes ? Words::say('{who} agreed{why}', who: $who, why: $why) : Words::say('{who} declined{why}', who: $who, why: $why);
    }
}
