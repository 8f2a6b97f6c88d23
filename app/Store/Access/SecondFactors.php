<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\People\Person;
use App\Store\DomainError;
use Illuminate\Database\Connection;
use VividLedger\Words\Words;

/** The second factor of each person: it is begun, proven with a first code, used, and given up again. */
final readonly class SecondFactors
{
    public function __construct(private Connection $db, private AccessEntries $entries)
    {
    }

    /**
     * @param  string  $secret  as it was told when it began
     * @return list<string> recovery codes, told this once
     *
     * @throws DomainError at "/code" when the first code is not right
     */
    public function takeUp(Person $person, string $secret, string $code): array
    {
        $step = SecondFactor::step($secret, $code, 0, time());
        if ($step === null) {
            throw DomainError::at('/code', Words::say('That code is not right. Look whether the clock of your telephone is.'));
        }
        $codes = SecondFactor::recoveryCodes();
        $this->db->transaction(function () use ($person, $secret, $step, $codes): void {
            $person->update([
                'second_factor' => $secret, 'second_factor_step' => $step, 'recovery_codes' => array_map(self::hash(...), $codes),
            ]);
            $this->entries->write('second_factor_on', $person->id, ['person' => $person->id]);
        });

        return $codes;
    }

    /** @param  int  $by  themselves, or an administrator for somebody who has lost theirs */
    public function giveUp(Person $person, int $by): void
    {
        $this->db->transaction(function () use ($person, $by): void {
            $person->update(['second_factor' => null, 'second_factor_step' => 0, 'recovery_codes' => null]);
            $this->entries->write('second_factor_off', $by, ['person' => $person->id]);
        });
    }

    /**
     * Takes a code, once: of the application, or one for recovery.
     *
     * @return 'code'|'recovery'|null which it was; null when it is not right
     */
    public function takes(Person $person, string $code): ?string
    {
        return $this->db->transaction(function () use ($person, $code): ?string {
            $locked = Person::query()->lockForUpdate()->find($person->id);
            if ($locked?->second_factor === null) {
                return null;
            }
            $step = SecondFactor::step($locked->second_factor, $code, $locked->second_factor_step, time());
            if ($step !== null) {
                $locked->update(['second_factor_step' => $step]);

                return 'code';
            }
            $left = $locked->recovery_codes ?? [];
            $hash = self::hash($code);
            if (! in_array($hash, $left, true)) {
                return null;
            }
            $locked->update(['recovery_codes' => array_values(array_diff($left, [$hash]))]);

            return 'recovery';
        });
    }

    private static function hash(string $code): string
    {
        return hash('sha256', strtolower((string) preg_replace('/[^A-Za-z0-9]/', '', $code)));
    }
}
