<?php

declare(strict_types=1);

namespace Tests\App\Library;

use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** Letters and named conditions: kept once, used by name, with every version there. */
final class KeptTest extends AppTestCase
{
    private const LETTER = [
        'recordType' => 'ticket',
        'name' => 'Thanks',
        'subject' => 'About {subject}',
        'body' => '<p>Dear <span data-merge="contact.name">Contact</span></p>',
    ];

    private const OPEN = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']]];

    public function test_a_letter_keeps_every_version_and_what_was_sent_stays_as_it_was(): void
    {
        $letter = $this->keepLetter();
        $this->inForce($this->writes('Thanks'));
        $this->ticket(['contact' => $this->contact()]);
        $this->as(
            'ines.okafor',
            'PUT',
            "letters/{$letter['id']}",
            ['version' => 1, 'name' => 'Thanks', 'subject' => 'Your {subject}', 'body' => '<p>Hello</p>'],
        )
            ->assertOk()
            ->assertJsonPath('version', 2)
            ->assertJsonPath('by', 'Ines Okafor');
        $this->ticket(['contact' => $this->contact()]);

        self::assertSame(
            ['About Ficus wall wilting', 'Your Ficus wall wilting'],
            DB::table('messages')->orderBy('id')->pluck('subject')->all(),
        );
        self::assertSame(['Dear Marit Solheim', 'Hello'], DB::table('messages')->orderBy('id')->pluck('text')->all());
        $versions = $this->as('odile.march', 'GET', "letters/{$letter['id']}/versions")->json();
        self::assertSame([2, 1], array_column($versions, 'number'));
        self::assertSame(['Your {subject}', 'About {subject}'], array_column($versions, 'subject'));
    }

    public function test_a_letter_in_use_keeps_its_name_and_stays(): void
    {
        $letter = $this->keepLetter();
        $rule = $this->inForce($this->writes('Thanks'));
        $renamed = ['version' => 1, 'name' => 'Thank you', 'subject' => 'S', 'body' => '<p>B</p>'];
        $this->assertRefused($this->as('ines.okafor', 'PUT', "letters/{$letter['id']}", $renamed), 409, 'in_use', '/name');
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "letters/{$letter['id']}"), 409, 'in_use');
        self::assertSame(['R'], $this->as('ines.okafor', 'GET', 'letters')->json('0.rules'));

        // The rule's next page writes its own text, and the page in force is what counts.
        $page = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json();
        $own = $this->writes('Thanks');
        $own['lines'][0] = ['subject' => 'Own', 'body' => '<p>Own</p>'] + array_diff_key($own['lines'][0], ['letter' => 1]);
        $drafted = $this->as(
            'ines.okafor',
            'PUT',
            "rules/{$rule}/draft",
            ['version' => $page['draftVersion'], 'file' => $own],
        )->assertOk()->json();
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "letters/{$letter['id']}"), 409, 'in_use');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $drafted['draftVersion']])->assertOk();
        $this->as('ines.okafor', 'DELETE', "letters/{$letter['id']}")->assertNoContent();
        self::assertSame([], $this->as('ines.okafor', 'GET', 'letters')->json());
    }

    public function test_who_saw_an_older_version_is_told(): void
    {
        $letter = $this->keepLetter();
        $next = ['version' => 1, 'name' => 'Thanks', 'subject' => 'S', 'body' => '<p>B</p>'];
        $this->as('ines.okafor', 'PUT', "letters/{$letter['id']}", $next)->assertOk();
        $this->assertRefused($this->as('ines.okafor', 'PUT', "letters/{$letter['id']}", $next), 409, 'stale_version');
        self::assertSame(2, DB::table('letter_versions')->count());
    }

    /** @return iterable<string, array{array<string, string>, int, string, string}> what differs from a sound letter, and the refusal */
    public static function badLetters(): iterable
    {
        yield 'no name' => [['name' => '  '], 422, 'invalid_values', '/name'];
        yield 'too long a name' => [['name' => str_repeat('x', 61)], 422, 'invalid_values', '/name'];
        yield 'no subject' => [['subject' => ''], 422, 'unfinished_letter', '/subject'];
        yield 'nothing written' => [['body' => '<p></p>'], 422, 'unfinished_letter', '/body'];
        yield 'only what is not kept' => [['body' => '<script>alert(1)</script>'], 422, 'unfinished_letter', '/body'];
        yield 'a merge field that is not there' => [
            ['body' => '<p><span data-merge="boat">x</span></p>'], 422, 'unfinished_letter', '/body',
        ];
        yield 'a subject that merges what is not there' => [['subject' => 'About {boat}'], 422, 'unfinished_letter', '/subject'];
        yield 'a name that is taken' => [['name' => 'Taken'], 409, 'name_taken', '/name'];
    }

    /** @param  array<string, string>  $with */
    #[DataProvider('badLetters')]
    public function test_a_letter_that_cannot_be_kept_is_refused_at_its_place(array $with, int $status, string $code, string $at): void
    {
        $this->as('ines.okafor', 'POST', 'letters', ['name' => 'Taken'] + self::LETTER)->assertCreated();
        $this->assertRefused($this->as('ines.okafor', 'POST', 'letters', $with + self::LETTER), $status, $code, $at);
        self::assertSame([1, 1], [DB::table('letters')->count(), DB::table('letter_versions')->count()]);
    }

    public function test_a_letter_is_previewed_on_a_real_record_and_nothing_is_sent(): void
    {
        $ticket = $this->ticket(['contact' => $this->contact(), 'cost' => '1240.50'])['record'];
        $preview = $this->as('ines.okafor', 'POST', 'messages/preview', [
            'on' => 'ticket',
            'record' => $ticket['id'],
            'line' => [
                'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => '{number}',
                'body' => '<p><strong><span data-merge="cost">Cost</span></strong></p>',
            ],
        ])->assertOk()->json();

        self::assertSame($ticket['number'], $preview['subject']);
        self::assertSame(['Marit Solheim <marit@hotel.example>'], $preview['to']);
        self::assertStringContainsString('<strong>', $preview['html']);
        self::assertSame(0, DB::table('messages')->count());
    }

    public function test_a_named_condition_reads_everywhere_it_is_used(): void
    {
        $named = $this->as(
            'ines.okafor',
            'POST',
            'named-conditions',
            ['recordType' => 'ticket', 'name' => 'Still open', 'file' => self::OPEN],
        )->assertCreated()->json();
        self::assertSame(['Still open', 1, []], [$named['name'], $named['version'], $named['rules']]);
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->asks('Still open')])->assertCreated()->json();
        self::assertStringContainsString('Still open', $rule['reading']['aloud']);
        self::assertSame(['R'], $this->as('ines.okafor', 'GET', 'named-conditions')->json('0.rules'));

        // It can also be turned around and stand beside others.
        $not = $this->asks('Still open');
        $not['onlyIf'] = [
            'kind' => 'none',
            'of' => [['kind' => 'named', 'name' => 'Still open'], ['kind' => 'is', 'field' => 'priority', 'value' => 'low']],
        ];
        $this->inForce(['name' => 'Not'] + $not);
        self::assertSame(
            [0, 1],
            [count($this->ticket(['status' => 'open'])['fired']), count($this->ticket(['status' => 'closed'])['fired'])],
        );
    }

    /** @return iterable<string, array{array<string, mixed>, int, string, string}> */
    public static function badConditions(): iterable
    {
        yield 'no name' => [['name' => ''], 422, 'invalid_values', '/name'];
        yield 'an empty group' => [
            ['file' => ['kind' => 'all', 'of' => [['kind' => 'any', 'of' => []]]]], 422, 'unfinished_condition', '/file/of/0',
        ];
        yield 'a field that is not there' => [
            ['file' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'boat', 'value' => 'x']]]], 422, 'unfinished_condition',
            '/file/of/0/field',
        ];
        yield 'one that names another' => [
            ['file' => ['kind' => 'all', 'of' => [['kind' => 'named', 'name' => 'Taken']]]], 422, 'unfinished_condition', '/file/of/0/name',
        ];
        yield 'a name that is taken' => [['name' => 'Taken'], 409, 'name_taken', '/name'];
    }

    /** @param  array<string, mixed>  $with */
    #[DataProvider('badConditions')]
    public function test_a_condition_that_cannot_be_kept_is_refused_at_its_place(array $with, int $status, string $code, string $at): void
    {
        $sound = ['recordType' => 'ticket', 'name' => 'Open', 'file' => self::OPEN];
        $this->as('ines.okafor', 'POST', 'named-conditions', ['name' => 'Taken'] + $sound)->assertCreated();
        $this->assertRefused($this->as('ines.okafor', 'POST', 'named-conditions', $with + $sound), $status, $code, $at);
        self::assertSame(1, DB::table('named_conditions')->count());
    }

    public function test_a_condition_of_that_name_may_stand_once_for_each_record_type(): void
    {
        $this->as(
            'ines.okafor',
            'POST',
            'named-conditions',
            ['recordType' => 'ticket', 'name' => 'Mine', 'file' => self::OPEN],
        )->assertCreated();
        $customer = $this->as(
            'ines.okafor',
            'POST',
            'named-conditions',
            [
                'recordType' => 'customer', 'name' => 'Mine',
                'file' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'key_account']]],
            ],
        )->assertCreated()->json();
        $this->as('ines.okafor', 'DELETE', "named-conditions/{$customer['id']}")->assertNoContent();
        self::assertCount(1, $this->as('ines.okafor', 'GET', 'named-conditions')->json());
    }

    /** @return array<string, mixed> */
    private function keepLetter(): array
    {
        return $this->as('ines.okafor', 'POST', 'letters', self::LETTER)->assertCreated()->json();
    }

    private function contact(): int
    {
        $customer = $this->customer();

        return $this->created(
            'contact',
            ['name' => 'Marit Solheim', 'customer' => $customer['id'], 'email' => 'marit@hotel.example', 'may_write' => true],
        )['record']['id'];
    }

    /** @return array<string, mixed> a rule that sends a letter for each new ticket */
    private function writes(string $letter): array
    {
        return [
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'letter' => $letter]],
        ];
    }

    /** @return array<string, mixed> a rule with a named condition */
    private function asks(string $condition): array
    {
        return [
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'named', 'name' => $condition]],
            ],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
            ],
        ];
    }
}
