<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Access\PersonLink;
use App\Models\Outbound\LinkKind;
use App\Store\DomainError;
use App\Store\RefusedFor;
use VividLedger\Words\Words;

/** Links that let somebody in once. They live by the clock of the machine: turning the clock of the house opens and shuts no door. */
final class PersonLinks
{
    private const PATTERN = '/^[A-Za-z0-9_-]{43}$/D';

    /** @return string the token, told this once; links of the same kind for the same person are void from now on */
    public static function make(LinkKind $kind, ?int $person): string
    {
        PersonLink::query()->where('kind', $kind)->where('person_id', $person)->whereNull('used_at')->delete();
        $token = rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
        PersonLink::query()->create([
            'kind' => $kind, 'person_id' => $person, 'hash' => hash('sha256', $token),
            'expires_at' => new \DateTimeImmutable("+{$kind->hours()} hours"),
        ]);

        return $token;
    }

    /**
     * @param  bool  $toUse  whether it is held for whoever uses it now, in a transaction
     *
     * @throws DomainError when it leads nowhere, was used, or is too old
     */
    public static function open(string $token, bool $toUse = false): PersonLink
    {
        $link = preg_match(self::PATTERN, $token) !== 1 ? null
            : PersonLink::query()->with('person')->when($toUse, static fn ($links) => $links->lockForUpdate())
                ->firstWhere('hash', hash('sha256', $token));
        if ($link === null || ($link->kind !== LinkKind::Begin && $link->person?->active !== true)) {
            throw DomainError::missing(Words::say('This link leads nowhere. Ask for a new one.'));
        }
        if ($link->used_at !== null) {
            throw new DomainError('used', Words::say('This link has been used. Sign in, or ask for a new one.'), RefusedFor::Conflict);
        }
        if ($link->expires_at < new \DateTimeImmutable) {
            throw new DomainError('expired', Words::say('This link is too old. Ask for a new one.'), RefusedFor::Conflict);
        }

        return $link;
    }

    /** All links of somebody are void: the door has been used, or is shut. */
    public static function shut(?int $person): void
    {
        PersonLink::query()->where('person_id', $person)->whereNull('used_at')->update(['used_at' => new \DateTimeImmutable]);
    }
}
