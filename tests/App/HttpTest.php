<?php

declare(strict_types=1);

namespace Tests\App;

use Tests\App\Support\AppTestCase;

/** What HTTP says of answers besides what stands in them (RFC 9110, RFC 9457): what programs go by that were not written for this one. */
final class HttpTest extends AppTestCase
{
    public function test_a_refusal_says_how_to_come_in_which_methods_there_are_and_when_to_come_again(): void
    {
        $stranger = $this->getJson('/api/records/ticket')->assertUnauthorized();
        self::assertStringStartsWith('Bearer ', (string) $stranger->headers->get('WWW-Authenticate'));
        $method = $this->as('ines.okafor', 'PUT', 'rules')->assertStatus(405);
        self::assertSame(['GET', 'HEAD', 'POST'], explode(', ', (string) $method->headers->get('Allow')));
        for ($try = 0; $try < 6; $try++) {
            $tried = $this->signIn('lena.abara@larkmoss.example', 'wrong');
        }
        self::assertGreaterThan(0, (int) $tried->assertStatus(429)->headers->get('Retry-After'));
    }

    /** The title names the kind, the same each time; what happened this time is the detail. */
    public function test_problems_of_a_kind_have_one_title(): void
    {
        $titles = $details = [];
        foreach (['POST tasks', 'POST rules', 'POST records/ticket', 'GET records/ticket/999999', 'GET rules/999999',
            'GET tasks/999999'] as $asked) {
            [$method, $path] = explode(' ', $asked);
            $problem = $this->as('ines.okafor', $method, $path, ['values' => ['x' => 1]])->assertClientError()->json();
            $titles[$problem['status']][$problem['title']] = true;
            $details[] = $problem['detail'];
            self::assertStringStartsWith('urn:vivid-ledger:problem:', $problem['type']);
        }
        self::assertSame([1, 1], array_values(array_map(count(...), $titles)));
        self::assertGreaterThan(3, count(array_unique($details)));
        $this->person('lena.abara')->forceFill(['language' => 'de'])->save();
        self::assertSame('Nicht vorhanden', $this->as('lena.abara', 'GET', 'records/ticket/999999')->json('title'));
    }

    public function test_what_has_not_changed_is_not_sent_again(): void
    {
        $ticket = $this->ticket()['record'];
        $path = "records/ticket/{$ticket['id']}";
        $first = $this->as('ines.okafor', 'GET', $path)->assertOk();
        $tag = (string) $first->headers->get('ETag');
        self::assertMatchesRegularExpression('#^W/"[0-9a-f]+"$#', $tag);
        $again = fn (string $who = 'ines.okafor') => $this->withHeader('If-None-Match', $tag)->as($who, 'GET', $path);
        self::assertSame('', $again()->assertStatus(304)->getContent());
        self::assertStringContainsString('private', (string) $first->headers->get('Cache-Control'));
        $this->flushHeaders();
        $this->change($ticket, ['notes' => 'Another']);
        $again()->assertOk()->assertJsonPath('values.notes', 'Another');
        $this->flushHeaders();
        self::assertNull($this->as('ines.okafor', 'POST', "{$path}/comments", ['text' => 'x'])->headers->get('ETag'));
    }

    /** A page knows whether anybody has come in, so that its first question is not one that has to be refused. */
    public function test_a_page_knows_whether_anybody_has_come_in(): void
    {
        $this->get('/')->assertOk()->assertDontSee('signed-in', false);
        $this->actingAs($this->person('lena.abara'));
        $this->get('/')->assertOk()->assertSee('<meta name="signed-in" content="yes">', false);
    }
}
