<?php

declare(strict_types=1);

namespace App\Work\Jobs;

use App\Models\CompanySettings;
use App\Models\LinkKind;
use App\Models\Person;
use App\Store\Access\PersonLinks;
use App\Work\Mailer;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

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

    public function handle(): void
    {
        $person = Person::query()->where('active', true)->find($this->person);
        if ($person === null || ($this->kind === LinkKind::Invite && $person->joined_at !== null)) {
            return;
        }
        $company = (string) CompanySettings::query()->value('name');
        $link = rtrim((string) config('app.url'), '/').'/welcome/'.PersonLinks::make($this->kind, $person->id);
        [$subject, $says] = $this->kind === LinkKind::Invite ? [
            "{$company} invites you to Vivid Ledger",
            "{$company} keeps its customers and its rules in Vivid Ledger, and you are invited.",
        ] : ['Choose another password', 'Somebody, you we hope, asked for another password. If it was not you, do nothing.'];
        $hours = $this->kind->hours();
        $lives = $hours > 48 ? intdiv($hours, 24).' days' : "{$hours} hours";
        (new Mailer(static fn () => null))->tell($person->name, $person->email, $subject, "Hello {$person->name},\n\n{$says}\n\n"
            ."Choose your password here:\n{$link}\n\nThe link is for you alone and good for {$lives}.\n");
    }
}
