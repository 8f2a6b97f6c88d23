<?php

declare(strict_types=1);

namespace Tests\Browser;

use Symfony\Component\Process\Process;
use Tests\Browser\Support\BrowserTestCase;

/** From a server without a company to a first rule that fires: a database and a web server that live as long as this test. */
final class OpenCompanyTest extends BrowserTestCase
{
    /** @var array<string, string> */
    private array $with = [];

    private ?Process $server = null;

    protected function setUp(): void
    {
        parent::setUp();
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $address = (string) stream_socket_get_name($socket, false);
        fclose($socket);
        $this->with = ['DB_DATABASE' => 'vivid_ledger_new_'.getmypid(), 'APP_URL' => "http://{$address}"];
        $this->sql("CREATE DATABASE {$this->with['DB_DATABASE']}");
        $this->artisan('migrate', '--force');
        $this->server = new Process(
            [PHP_BINARY, '-S', $address, '-t', 'public', 'tests/Browser/Support/router.php'],
            dirname(__DIR__, 2),
            ['SESSION_DRIVER' => 'database', 'CACHE_STORE' => 'database'] + $this->with,
            timeout: null,
        );
        $this->server->start();
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        $this->server?->stop(2);
        $this->sql("DROP DATABASE {$this->with['DB_DATABASE']}");
    }

    public function test_a_company_is_opened_and_its_first_rule_fires(): void
    {
        $link = trim($this->artisan('company:link'));
        self::assertStringStartsWith("{$this->with['APP_URL']}/welcome/", $link);
        $this->until(fn (): bool => @file_get_contents("{$this->with['APP_URL']}/api/door") !== false, 'for the web server');
        $this->browser->get($this->with['APP_URL']);
        $this->see('p', 'There is no company here yet.');
        $this->browser->get($link);
        $this->see('#company')->sendKeys('Fern & Daughters');
        $this->see('#zone')->sendKeys('Europe/Lisbon');
        $this->see('label', 'Contracts')->click();
        $this->see('#name')->sendKeys('Maud Fern');
        $this->see('#email')->sendKeys('maud@fern.example');
        $this->see('#password')->sendKeys('ferndaughters');
        $this->press('Open the ledger');
        $this->see('[role=alert]', 'the name of the company');
        $this->see('#password')->clear()->sendKeys('eleven boats at dusk');
        $this->press('Open the ledger');

        $this->see('[aria-label="First steps"]', 'Put a rule in force');
        $this->see('[aria-label="First steps"] a', 'Put a rule in force')->click();
        $this->press('Welcome a new customer', 'a.line .font-semibold, .line .font-semibold a, .line .font-semibold');
        $this->see('.line', 'Give the owner a task “Welcome {name}”');
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');

        $this->browser->get("{$this->with['APP_URL']}/records/customer/new");
        $this->see('#field-name')->sendKeys('Brine & Barrow');
        $this->see('#field-status')->sendKeys('Prospect');
        $this->see('#field-owner')->sendKeys('Maud Fern');
        $this->press('Save');
        $this->see('h1', 'Brine & Barrow');
        $this->press('Edit');
        $this->see('#field-status')->sendKeys('Active');
        $this->press('Save');
        $this->see('[role=status]', 'Welcome a new customer fired');
        $this->see('[data-ahead]', 'Welcome Brine & Barrow');
    }

    private function artisan(string ...$arguments): string
    {
        return (new Process([PHP_BINARY, 'artisan', ...$arguments], dirname(__DIR__, 2), $this->with))->mustRun()->getOutput();
    }

    private function sql(string $statement): void
    {
        (new \PDO('mysql:unix_socket='.getenv('DB_SOCKET'), 'root'))->exec($statement);
    }
}
