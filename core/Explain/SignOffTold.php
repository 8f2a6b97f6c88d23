<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;

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
        $who = $event->text('person') === '' ? 'nobody' : $event->text('person');
        $why = $event->text('comment') === '' ? '' : ": “{$event->text('comment')}”";
        $step = 'Step '.($event->number('step') + 1);

        return match (SignOffEventKind::tryFrom($event->text('kind'))) {
            SignOffEventKind::Asked => "{$who} is asked",
            SignOffEventKind::AskedAgain => "{$who} is asked again",
            SignOffEventKind::Reminded => "{$who} is reminded",
            SignOffEventKind::Said => "{$who} ".($event->text('answer') === 'yes' ? 'agreed' : 'declined').$why,
            SignOffEventKind::Counted => "{$who} did not answer in time, which counts as a ".$event->text('answer'),
            SignOffEventKind::SaidBefore => "{$who} has agreed before",
            SignOffEventKind::PassedOn => "{$who} is asked instead of {$event->text('other')}",
            SignOffEventKind::StoodIn => "nobody was found, so {$who} stands in",
            SignOffEventKind::Deputised => "{$who} is asked for {$event->text('other')}, who is absent",
            SignOffEventKind::HandedOver => "{$event->text('other')} gave it to {$who}{$why}",
            SignOffEventKind::Rerouted => "{$who} is asked instead of {$event->text('other')}: the way leads there now",
            SignOffEventKind::AskedBack => "{$who} asked {$event->text('other')}{$why}",
            SignOffEventKind::AnsweredBack => "{$who} answered {$event->text('other')}{$why}",
            SignOffEventKind::WentOn => "the question of {$who} stayed without an answer, and time goes on",
            SignOffEventKind::RouteChanged => 'the route was changed, and the step begins anew',
            SignOffEventKind::StepAgreed => "{$step} is agreed",
            SignOffEventKind::StepLeftOut => "{$step} is left out: its condition does not hold",
            SignOffEventKind::Ended => 'the sign-off is '.(SignOffStatus::tryFrom($event->text('status'))?->said() ?? 'over'),
            null => $event->text('kind'),
        };
    }
}
