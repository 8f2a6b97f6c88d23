<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Models\Slips\SlipTurnRow;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Rules\RuleStore;
use App\Store\Slips\SlipLink;
use App\Store\Types\SchemaStore;
use App\Work\Inbound\InboundMail;
use App\Work\Inbound\MailReader;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\LineWorker;
use Illuminate\Database\Connection;
use ZBateson\MailMimeParser\MailMimeParser;

/** Letters that go out together, slips that many answer at once, and mail that comes in. */
final class LetterBench
{
    private const LETTERS = 10_000;

    private const SLIPS = 1_000;

    private const CLIENTS = 20;

    private const MAILS = 1_000;

    public static function out(): void
    {
        $db = app(Connection::class);
        $customer = self::customer();
        $rule = self::rule('agreement', 'by_hand', [
            'kind' => 'send_message', 'channel' => 'email', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
            'subject' => 'About {title}', 'body' => '<p>Dear {owner}, the agreement {number} with {customer.name} ends on {end}.</p>',
            'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
        ]);
        $db->statement(
            "INSERT INTO records_agreement (id, version, title, customer, status, `end`, owner, created_at, updated_at)
            SELECT seq, 1, CONCAT('Bench ', seq), ?, 'running', '2027-12-05', ?, NOW(), NOW() FROM seq_1_to_".self::LETTERS,
            [$customer, self::ines()],
        );
        $db->statement(
            "INSERT INTO rule_runs (id, rule_id, page, record_type, record_id, entry_id, started_at) SELECT seq, {$rule}, 1, "
                ."'agreement', seq, 1, '2026-11-23 09:00:00' FROM seq_1_to_".self::LETTERS,
        );
        $db->statement(
            'INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, entry_id, run_id, rule_id, page, place) SELECT '
                ."'send_message', '2026-11-24 09:00:00', 'agreement', seq, 1, seq, {$rule}, 1, 0 FROM seq_1_to_".self::LETTERS,
        );
        app(HouseClock::class)->hold(new \DateTimeImmutable('2026-12-01 09:00:00'));
        $worker = app(LineWorker::class);
        $again = new RowsAgain($db);
        $again->watch(static fn () => $worker->work(200));
        $from = hrtime(true);
        while ($worker->work(200) > 0);
        $seconds = (hrtime(true) - $from) / 1e9;
        $written = (int) $db->scalar('SELECT COUNT(*) FROM messages');
        if ($written !== self::LETTERS) {
            throw new \LogicException("{$written} letters were written.");
        }
        $pdo = $db->getPdo();
        $from = hrtime(true);
        for ($batch = 0; $batch < self::LETTERS / 200 - 1; $batch++) {
            $pdo->beginTransaction();
            $again->write($pdo);
            $pdo->commit();
        }
        $floor = (hrtime(true) - $from) / 1e9;
        Figures::pair('letters: 9,800 fall due together, rendered and written', $seconds, 'plain PDO, same new rows', $floor, 's', 5);
        Figures::one('letters: so many a second, by one worker', (self::LETTERS - 200) / $seconds, '/s', 'at least 500');
    }

    /** Every slip is answered by two of the clients, so that all along two meet. */
    public static function slips(): void
    {
        $db = app(Connection::class);
        $customer = self::customer();
        self::rule('ticket', 'created', [
            'kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'Bench',
            'body' => '<p>How long?</p>', 'asks' => [['kind' => 'field', 'path' => 'hours', 'needed' => true]],
        ]);
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        for ($count = 0; $count < self::SLIPS; $count++) {
            app(SaveRecord::class)->create($type, [
                'subject' => "Bench {$count}", 'customer' => $customer, 'status' => 'open', 'priority' => 'normal', 'owner' => self::ines(),
            ], new Actor(self::ines()));
        }
        $tokens = [];
        foreach (SlipTurnRow::query()->orderBy('id')->get() as $turn) {
            $turn->update(['token_hash' => SlipLink::hash($token = SlipLink::token($turn))]);
            $tokens[] = $token;
        }
        $hands = array_fill(0, self::CLIENTS, []);
        foreach ($tokens as $nth => $token) {
            $hands[$nth % self::CLIENTS][] = $token;
            $hands[($nth + 1) % self::CLIENTS][] = $token;
        }
        $from = hrtime(true);
        $answers = self::clients($hands);
        $seconds = (hrtime(true) - $from) / 1e9;
        $answered = (int) $db->scalar("SELECT COUNT(*) FROM slips WHERE status = 'answered'");
        $entries = (int) $db->scalar("SELECT COUNT(*) FROM entries WHERE kind = 'slip' AND data LIKE '%\"kind\":\"answered\"%'");
        $written = (int) $db->scalar('SELECT COUNT(*) FROM records_ticket WHERE hours = 3');
        arsort($answers);
        Figures::note('slips: the page said '.json_encode($answers)." (303: it has arrived); answered {$answered}, entries {$entries}, "
            ."fields written {$written}");
        $broken = array_filter(array_keys($answers), static fn (int $status): bool => $status >= 500);
        if ([$answered, $entries, $written] !== array_fill(0, 3, self::SLIPS) || $broken !== []) {
            throw new \LogicException('Something was lost, doubled or broken.');
        }
        Figures::one('slips: 1,000, each answered by two of 20 clients', $seconds, 's', 'no error, no double');
    }

    public static function in(): void
    {
        $mails = array_map(self::mail(...), range(1, self::MAILS));
        $door = app(InboundMail::class);
        $door->take(self::mail(0));
        $from = hrtime(true);
        array_map($door->take(...), $mails);
        $seconds = (hrtime(true) - $from) / 1e9;
        $parser = new MailMimeParser;
        $pdo = app(Connection::class)->getPdo();
        $write = $pdo->prepare(
            'INSERT INTO incoming_mails (message_id, at, sender, subject, kind, trouble, text, raw) VALUES (?, NOW(), ?, ?, ?, ?, ?, ?)',
        );
        $from = hrtime(true);
        foreach ($mails as $nth => $raw) {
            $mail = $parser->parse($raw, false);
            $sender = (string) $mail->getHeaderValue('From');
            $write->execute(["again {$nth}", $sender, 'x', 'unknown', '', (string) $mail->getTextContent(), $raw]);
        }
        $floor = (hrtime(true) - $from) / 1e9;
        Figures::pair('mail: 1,000 come in, each with a picture', $seconds, 'parsed and kept by plain PDO', $floor, 's', 2);
        Figures::one('mail: so many a second are told apart and kept, a commit for each', self::MAILS / $seconds, '/s', 'at least 200');
        $from = hrtime(true);
        array_map(MailReader::read(...), $mails);
        Figures::one('mail: so many a second are read', self::MAILS / (hrtime(true) - $from) * 1e9, '/s', 'at least 200');
    }

    private static function mail(int $nth): string
    {
        return "From: Guest {$nth} <guest{$nth}@bench.example>\r\nTo: ledger@larkmoss.example\r\nSubject: Re: Bench {$nth}\r\n"
            ."Message-ID: <{$nth}@bench.example>\r\nReferences: <before{$nth}@larkmoss.example>\r\nMIME-Version: 1.0\r\n"
            ."Content-Type: multipart/mixed; boundary=\"b\"\r\n\r\n--b\r\nContent-Type: text/plain; charset=utf-8\r\n"
            ."Content-Transfer-Encoding: quoted-printable\r\n\r\nThank you, it is fine.\r\n\r\nOn Tue, Larkmoss wrote:\r\n"
            .str_repeat("> What we wrote before, line by line, and once more\r\n", 20)
            ."\r\n--b\r\nContent-Type: image/png; name=\"a.png\"\r\n"
            ."Content-Disposition: attachment; filename=\"a.png\"\r\nContent-Transfer-Encoding: base64\r\n\r\n"
            .chunk_split(base64_encode(str_repeat(chr($nth % 256), 10_000)))."--b--\r\n";
    }

    /**
     * @param  array<int, list<string>>  $hands  the tokens of each client
     * @return array<int, int> how often which status was answered
     */
    private static function clients(array $hands): array
    {
        $running = [];
        foreach ($hands as $tokens) {
            $client = [PHP_BINARY, '-d', 'opcache.enable_cli=1', __DIR__.'/answer.php'];
            $process = proc_open($client, [['pipe', 'r'], ['pipe', 'w']], $pipes);
            if ($process === false) {
                throw new \LogicException('No client could be started.');
            }
            fwrite($pipes[0], implode("\n", $tokens));
            fclose($pipes[0]);
            $running[] = [$process, $pipes[1]];
        }
        $counts = [];
        foreach ($running as [$process, $output]) {
            foreach (array_map(intval(...), array_filter(explode("\n", (string) stream_get_contents($output)))) as $status) {
                $counts[$status] = ($counts[$status] ?? 0) + 1;
            }
            proc_close($process);
        }

        return $counts;
    }

    /** @param  array<string, mixed>  $line */
    private static function rule(string $type, string $when, array $line): int
    {
        $rule = app(RuleStore::class)->draft([
            'name' => 'Bench', 'on' => $type, 'when' => ['kind' => $when], 'fires' => ['kind' => 'every_time'], 'lines' => [$line],
        ], self::ines());
        app(RulePublisher::class)->publish($rule, 1, self::ines());

        return $rule;
    }

    private static function customer(): int
    {
        return app(SaveRecord::class)->create(
            app(SchemaStore::class)->schema()->types['customer'], ['name' => 'Bench'], new Actor(self::ines()),
        )->record->id;
    }

    private static function ines(): int
    {
        return Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
    }
}
