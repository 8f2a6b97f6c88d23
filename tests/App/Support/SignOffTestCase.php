<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\SignOffs\StoredSignOff;
use App\Work\SignOffs\SignOffsDue;
use Illuminate\Support\Facades\DB;

/** For stories about sign-offs: quotes of Jonas Pike, whose manager is Clea Harrow, whose manager is Viktor Sand. */
abstract class SignOffTestCase extends TimeTestCase
{
    protected const CLEA = ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'clea.harrow']]];

    /**
     * A rule that asks for a sign-off on discounts over 12 %, and comments on each end.
     *
     * @param  list<array<string, mixed>>  $steps
     * @param  array<string, mixed>  $line  what the line has besides
     * @param  array<string, mixed>  $rule  what the rule has instead
     * @return array<string, mixed>
     */
    protected static function asking(array $steps, array $line = [], array $rule = []): array
    {
        $once = static fn (string $status, string $text): array => ['kind' => 'comment', 'text' => $text, 'at' => [
            'kind' => 'signed_off', 'line' => 'asked', 'status' => $status, 'amount' => 0, 'unit' => 'day',
        ]];

        return $rule + [
            'name' => 'Discounts', 'on' => 'quote', 'when' => ['kind' => 'created_or_changed'], 'fires' => ['kind' => 'becomes_true'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'discount', 'value' => '12']]],
            'lines' => [
                $line + ['kind' => 'sign_off', 'key' => 'asked', 'why' => 'A discount of {discount}', 'steps' => $steps],
                $once('agreed', 'Signed off by {sign_off.agreed}'), $once('declined', 'Declined: {sign_off.comments}'),
                $once('withdrawn', 'Withdrawn'), $once('timed_out', 'Timed out'),
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $values
     * @return array<string, mixed> the record
     */
    protected function quote(array $values = [], string $by = 'jonas.pike'): array
    {
        return $this->created('quote', $values + [
            'subject' => 'Ferns', 'stage' => 'draft', 'amount' => '1000', 'discount' => '20',
            'customer' => $values['customer'] ?? $this->customer()['id'], 'owner' => $this->person('jonas.pike')->id,
        ], $by)['record'];
    }

    /** @param  array<string, mixed>  $body */
    protected function say(string $handle, string $answer, int $id, array $body = []): ?string
    {
        $said = $this->as($handle, 'POST', 'sign-offs/answers', ['ids' => [$id], 'answer' => $answer] + $body)->assertOk()->json();
        $this->settle();

        return $said[0]['problem'];
    }

    /** Everything that is due now is done. */
    protected function settle(): void
    {
        do {
            $done = $this->app->make(SignOffsDue::class)->work();
            $this->workNow();
        } while ($done > 0);
    }

    protected function latest(): StoredSignOff
    {
        return StoredSignOff::query()->with('seats.person')->latest('id')->firstOrFail();
    }

    /** @return list<string> handles of those who are asked */
    protected function asked(): array
    {
        $waiting = $this->latest()->seats->where('state.value', 'waiting');

        return array_values($waiting->map(static fn ($seat) => $seat->person->handle)->all());
    }

    /** @return list<string> comments on a record, in order */
    protected function comments(int $quote): array
    {
        return DB::table('comments')->where('record_type', 'quote')->where('record_id', $quote)->orderBy('id')->pluck('text')->all();
    }

    /** What a record's account tells of sign-offs, as it is read. */
    protected function told(int $quote): string
    {
        return implode("\n", array_map(
            static fn (array $entry): string => "{$entry['head']['strong']} {$entry['head']['rest']}: {$entry['detail']}",
            array_reverse($this->as('ines.okafor', 'GET', "records/quote/{$quote}/account")->assertOk()->json('entries')),
        ));
    }
}
