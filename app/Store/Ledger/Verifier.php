<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Ledger\Entry;
use App\Models\Ledger\EntrySeal;

/** Goes over the whole chain, and finds every entry that was changed, taken away or slipped in since it was sealed. */
final class Verifier
{
    private const MOST_FINDINGS = 100;

    public int $looked = 0;

    /** @var list<string> */
    public array $findings = [];

    /** Number and seal of the last that was looked at, to be kept elsewhere. */
    public string $checkpoint = '';

    public function __construct(private readonly SealedRows $rows)
    {
    }

    /**
     * @param  array<int, string>  $checkpoints  seals in hexadecimal that were kept elsewhere, by the number of their entry
     * @return bool whether all is as it was
     */
    public function verify(array $checkpoints = []): bool
    {
        $gone = self::withoutEntry();
        $last = (int) EntrySeal::query()->max('entry_id');
        $before = '';
        foreach ($this->rows->between(0, $last) as $id => [$content, $seal]) {
            while (($missing = array_key_first($gone)) !== null && $missing < $id) {
                $before = $this->gone($missing, $gone[$missing], $checkpoints);
                unset($gone[$missing]);
            }
            $this->looked++;
            if ($seal === null) {
                $this->find("Entry {$id} was slipped in.");

                continue;
            }
            if (! hash_equals($seal, SealedRows::hash($before, $content))) {
                $this->find("Entry {$id} is not as it was when it was sealed.");
            }
            // Every break is told once: the chain goes on from what was kept.
            $this->compare($id, $seal, $checkpoints);
            $before = $seal;
        }
        foreach ($gone as $id => $seal) {
            $before = $this->gone($id, $seal, $checkpoints);
        }
        foreach (array_filter(array_keys($checkpoints), static fn (int $id): bool => $id > $last) as $id) {
            $this->find("Entry {$id}, of a checkpoint, is not sealed here.");
        }
        $this->checkpoint = $before === '' ? '' : "{$last}:".bin2hex($before);

        return $this->findings === [];
    }

    /** @return array<int, string> seals whose entry is not there, by its number */
    private static function withoutEntry(): array
    {
        return EntrySeal::query()->whereNotIn('entry_id', Entry::query()->select('id'))->orderBy('entry_id')
            ->limit(self::MOST_FINDINGS)->toBase()->pluck('hash', 'entry_id')->all();
    }

    /** @param  array<int, string>  $checkpoints */
    private function gone(int $id, string $seal, array $checkpoints): string
    {
        $this->find("Entry {$id} was taken away.");
        $this->compare($id, $seal, $checkpoints);

        return $seal;
    }

    /** @param  array<int, string>  $checkpoints */
    private function compare(int $id, string $seal, array $checkpoints): void
    {
        if (isset($checkpoints[$id]) && ! hash_equals(strtolower($checkpoints[$id]), bin2hex($seal))) {
            $this->find("The seal of entry {$id} is not that of the checkpoint: the chain has been made anew.");
        }
    }

    private function find(string $finding): void
    {
        if (count($this->findings) < self::MOST_FINDINGS) {
            $this->findings[] = $finding;
        }
    }
}
