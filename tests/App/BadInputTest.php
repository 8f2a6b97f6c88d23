<?php

declare(strict_types=1);

namespace Tests\App;

use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** What cannot be taken is refused at its field or word, and changes nothing. */
final class BadInputTest extends AppTestCase
{
    /** @return iterable<string, array{mixed, string, string}> values of a ticket, the field at fault, the code there */
    public static function values(): iterable
    {
        yield 'a missing field' => [['colour' => 'green'], 'colour', 'unknown_field'];
        yield 'a field kept by the application' => [['created_by' => 1], 'created_by', 'not_settable'];
        yield 'an empty value where one is needed' => [['subject' => '  '], 'subject', 'required'];
        yield 'a wrong type' => [['cost' => 'much'], 'cost', 'wrong_type'];
        yield 'a nested value' => [['subject' => ['a' => 'b']], 'subject', 'wrong_type'];
        yield 'a too long text' => [['subject' => str_repeat('x', 191)], 'subject', 'too_long'];
        yield 'a choice that is not offered' => [['status' => 'gone'], 'status', 'not_offered'];
        yield 'a record that does not exist' => [['customer' => 999999], 'customer', 'unknown_value'];
        yield 'a person who does not exist' => [['owner' => 999999], 'owner', 'unknown_value'];
        yield 'an injected link' => [['photos' => 'javascript:alert(1)'], 'photos', 'wrong_type'];
    }

    #[DataProvider('values')]
    public function test_a_record_refuses_a_bad_value_at_its_field(mixed $values, string $field, string $code): void
    {
        $ticket = $this->ticket()['record'];
        $entries = DB::table('entries')->count();
        $answer = $this->as(
            'bram.castellan',
            'PATCH',
            "records/ticket/{$ticket['id']}",
            ['version' => 1, 'values' => $values + ['hours' => '2']],
        );

        $this->assertRefused($answer, 422, 'invalid_values', "/values/{$field}");
        self::assertSame($code, $answer->json('problems.0.code'));
        self::assertSame(
            [$entries, 1, null],
            [
                DB::table('entries')->count(), (int) DB::table('records_ticket')->value('version'),
                DB::table('records_ticket')->value('hours'),
            ],
        );
    }

    public function test_a_new_record_names_every_field_that_is_missing(): void
    {
        $this->assertRefused(
            $this->as('bram.castellan', 'POST', 'records/ticket', ['values' => ['status' => 'open']]),
            422,
            'invalid_values',
            '/values/subject',
            '/values/customer',
            '/values/priority',
        );
        $this->assertRefused(
            $this->as('bram.castellan', 'POST', 'records/ticket', ['values' => 'none']),
            422,
            'invalid_request',
            '/values',
        );
        self::assertSame(0, DB::table('records_ticket')->count());
    }

    public function test_a_stale_version_shows_who_changed_what_when(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $seen = $this->ticket()['record'];
        $this->clockAt('2026-11-24T09:15:00Z');
        $this->change($seen, ['priority' => 'urgent', 'hours' => '2'], 'lena.abara');
        $answer = $this->as(
            'bram.castellan',
            'PATCH',
            "records/ticket/{$seen['id']}",
            ['version' => $seen['version'], 'values' => ['subject' => 'Mine', 'priority' => 'low', 'hours' => '5']],
        );

        $this->assertRefused($answer, 409, 'stale_version');
        // The rule changed something else, and so is not named.
        self::assertStringStartsWith(
            'Lena Abara changed Priority to Urgent, Hours spent to 2.00 after you opened it.',
            $answer->json('detail'),
        );
        self::assertSame(['2026-11-24T09:15:00Z', 'Lena Abara', [['Priority', 'Normal', 'Urgent'], ['Hours spent', 'empty', '2.00']]], [
            $answer->json('since.0.at'), $answer->json('since.0.who'), array_map(
                static fn (array $one): array => [$one['label'], $one['before'], $one['after']],
                $answer->json('since.0.changes'),
            ),
        ]);
        self::assertSame(2, $answer->json('version'));
    }

    /** @return iterable<string, array{string, string, array<string, mixed>, int, string}> */
    public static function requests(): iterable
    {
        yield 'no such record type' => ['GET', 'records/boat', [], 404, 'not_found'];
        yield 'a type that is SQL' => ['GET', 'records/ticket%60%3B', [], 404, 'not_found'];
        yield 'no such record' => ['GET', 'records/ticket/999999', [], 404, 'not_found'];
        yield 'changing no such record' => ['PATCH', 'records/ticket/999999', ['version' => 1, 'values' => []], 404, 'not_found'];
        yield 'sorting by nothing' => ['GET', 'records/ticket?sort=nope', [], 422, 'unknown_field'];
        yield 'sorting by SQL' => ['GET', 'records/ticket?sort=id%3BDROP', [], 422, 'unknown_field'];
        yield 'page nought' => ['GET', 'records/ticket?page=0', [], 422, 'invalid_request'];
        yield 'a filter that is no JSON' => ['GET', 'records/ticket?filter=%7B', [], 422, 'invalid_request'];
        yield 'a filter with a missing value' => [
            'GET', 'records/ticket?filter='.rawurlencode('{"kind":"is","field":"status"}'), [], 422, 'invalid_filter',
        ];
        yield 'no such entry' => ['GET', 'ledger/999999', [], 404, 'not_found'];
        yield 'no save to ask about' => ['GET', 'ledger/999999/answers', [], 404, 'not_found'];
        yield 'no such task' => ['POST', 'tasks/999999/complete', [], 404, 'not_found'];
        yield 'no such rule' => ['GET', 'rules/999999', [], 404, 'not_found'];
        yield 'a rule about nothing' => ['POST', 'rules', ['file' => ['on' => 'boat']], 422, 'unknown_type'];
        yield 'a rule without a file' => ['POST', 'rules', [], 422, 'invalid_request'];
        yield 'publishing no such rule' => ['POST', 'rules/999999/publish', ['version' => 1], 404, 'not_found'];
        yield 'a state that is none' => ['POST', 'rules/1/status', ['status' => 'asleep'], 422, 'invalid_request'];
        yield 'somebody else’s token' => ['DELETE', 'tokens/999999', [], 404, 'not_found'];
        yield 'a stand-in who is not there' => ['PATCH', 'company', ['fallbackPersonId' => 999999], 422, 'unknown_value'];
        yield 'deleting no such record' => ['DELETE', 'records/ticket/999999?version=1', [], 404, 'not_found'];
        yield 'deleting without saying which version' => ['DELETE', 'records/ticket/1', [], 422, 'invalid_request'];
        yield 'bringing back what never was' => ['POST', 'records/ticket/999999/restore', [], 404, 'not_found'];
        yield 'a comment on nothing' => ['POST', 'records/ticket/999999/comments', ['text' => 'Hello'], 404, 'not_found'];
        yield 'a file for nothing' => ['POST', 'records/ticket/999999/files', [], 422, 'invalid_values'];
        yield 'no such file' => ['GET', 'files/999999', [], 404, 'not_found'];
        yield 'following nothing' => ['POST', 'records/ticket/999999/follow', ['follows' => true], 404, 'not_found'];
        yield 'no such message' => ['GET', 'messages/999999', [], 404, 'not_found'];
        yield 'sending no such message again' => ['POST', 'messages/999999/again', [], 409, 'wrong_state'];
        yield 'messages of no such status' => ['GET', 'messages?status=lost', [], 422, 'invalid_request'];
        yield 'no such letter' => [
            'PUT', 'letters/999999', ['version' => 1, 'name' => 'L', 'subject' => 'S', 'body' => '<p>B</p>'], 404, 'not_found',
        ];
        yield 'a letter about nothing' => [
            'POST', 'letters', ['recordType' => 'boat', 'name' => 'L', 'subject' => 'S', 'body' => '<p>B</p>'], 404, 'not_found',
        ];
        yield 'no such condition' => ['DELETE', 'named-conditions/999999', [], 404, 'not_found'];
        yield 'a condition that is none' => [
            'POST', 'named-conditions', ['recordType' => 'ticket', 'name' => 'C', 'file' => 'x'], 422, 'invalid_request',
        ];
        yield 'no such run' => ['GET', 'runs/999999', [], 404, 'not_found'];
        yield 'ordering nothing' => ['POST', 'rules/order', [], 422, 'invalid_request'];
        yield 'ordering rules that are not there' => [
            'POST', 'rules/order', ['recordType' => 'ticket', 'rules' => [999999]], 409, 'stale_order',
        ];
        yield 'no such rule for a set' => ['POST', 'rules/999999/either-or', ['set' => 'A'], 404, 'not_found'];
        yield 'copying no such rule' => ['POST', 'rules/999999/copy', ['on' => 'ticket'], 404, 'not_found'];
        yield 'a preview of nothing' => ['POST', 'messages/preview', [], 422, 'invalid_request'];
        yield 'choices for no place' => ['POST', 'offers', ['file' => []], 422, 'invalid_request'];
        yield 'a guard of nothing' => ['POST', 'records/ticket/999999/guards/1', ['why' => 'x'], 409, 'not_used'];
        yield 'no such address' => ['GET', 'nowhere', [], 404, 'not_found'];
        yield 'no such method' => ['DELETE', 'rules', [], 405, 'wrong_method'];
    }

    /** @param  array<string, mixed>  $body */
    #[DataProvider('requests')]
    public function test_a_request_that_cannot_be_met_says_so(string $method, string $path, array $body, int $status, string $code): void
    {
        $this->assertRefused($this->as('ines.okafor', $method, $path, $body), $status, $code);
    }

    public function test_hostile_text_is_kept_as_text(): void
    {
        $hostile = '<script>alert(1)</script> {{7*7}} \'; DROP TABLE people; --';
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $saved = $this->ticket(['subject' => $hostile, 'priority' => 'urgent']);

        self::assertSame($hostile, $saved['record']['title']);
        self::assertStringEndsWith($hostile, (string) DB::table('tasks')->value('title'));
        self::assertSame(
            [$saved['record']['id']],
            array_column($this->as('bram.castellan', 'GET', 'records/ticket?search='.rawurlencode("'; DROP"))->json('rows'), 'id'),
        );
        self::assertSame([], $this->as('bram.castellan', 'GET', 'records/ticket?search='.rawurlencode('100%_x'))->json('rows'));
    }
}
