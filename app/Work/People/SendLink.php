<?php

declare(strict_types=1);

namespace App\Work\People;

use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Store\Access\PersonLinks;
use App\Store\Languages;
use App\Work\Outbound\Mailer;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use VividLedger\Words\Words;

/** Sends somebody the link by which they come in. It is made when the letter leaves, so that no queue ever holds it. */
final class SendLink implements ShouldQueue
{
    use Queueable;

    public int $tries = 8;

    public function __construct(private readonly int $person, private readonly LinkKind $kind)
    {
        $this->onQueue('letters');
        $this->afterCommit();
    }

    /** @return list<int> seconds between tries */
    public function backoff(): array
    {
        return [5, 30, 120, 600, 1800];
    }

    public function handle(Languages $languages): void
    {
        $person = Person::query()->where('active', true)->find($this->person);
        if ($person === null || ($this->kind === LinkKind::Invite && $person->joined_at !== null)) {
            return;
        }
        $languages->in($person->language ?? Words::OWN, fn () => $this->send($person));
    }

    private function send(Person $person): void
    {
        $company = (string) CompanySettings::query()->value('name');
        $link = rtrim((string) config('app.url'), '/').'/welcome/'.PersonLinks::make($this->kind, $person->id);
        [$subject, $says] = $this->kind === LinkKind::Invite ? [
            Words::say('{company} invites you to Vivid Ledger', company: $company),
            Words::say('{company} keeps its customers and its rules in Vivid Ledger, and you are invited.', company: $company),
        ] : [
            Words::say('Choose another password'),
            Words::say('Somebody, you we hope, asked for another password. If it was not you, do nothing.'),
        ];
        $hours = $this->kind->hours();
        $lives = $hours > 48
            ? Words::say('The link is for you alone and good for {days} days.', days: intdiv($hours, 24))
            : Words::say('The link is for you alone and good for {hours} hours.', hours: $hours);
        (new Mailer(static fn () => null))->tell($person->name, $person->email, $subject, implode("\n\n", [
            Words::say('Hello {person},', person: $person->name), $says, Words::say('Choose your password here:')."\n{$link}", "{$lives}\n",
        ]));
    }
}
