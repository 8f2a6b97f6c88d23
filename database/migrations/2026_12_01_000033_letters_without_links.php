<?php

declare(strict_types=1);

use App\Models\Columns;
use App\Models\Outbound\StoredMessage;
use App\Models\SignOffs\SignOffSeat;
use App\Store\Outbound\LetterLinks;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * What lets somebody act stands in no letter that is kept: a mark is in its place, and who decides by it is kept beside. Incoming mail is
 * kept without the form in which it came over the wire, which nobody reads and which holds the same.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('messages', static function (Blueprint $table): void {
            $table->unsignedBigInteger('seat_id')->nullable()->comment('who decides by it');
            $table->unsignedInteger('seat_round')->nullable();
        });
        StoredMessage::query()->whereNotNull('sign_off_id')->where('html', '<>', '')->chunkById(500, static function ($letters): void {
            foreach ($letters as $letter) {
                $isFound = preg_match('#/decide/(\d+)-(\d+)-#', $letter->html, $found) === 1;
                StoredMessage::rows()->where('id', $letter->id)->update([
                    'html' => LetterLinks::masked($letter->html), 'text' => LetterLinks::masked($letter->text),
                    'recipients' => Columns::json(['replyTo' => null] + $letter->recipients),
                ] + ($isFound && SignOffSeat::query()->whereKey((int) $found[1])->exists()
                    ? ['seat_id' => (int) $found[1], 'seat_round' => (int) $found[2]] : []));
            }
        });
        Schema::table('incoming_mails', static function (Blueprint $table): void {
            $table->dropColumn('raw');
        });
    }

    public function down(): void
    {
        Schema::table('incoming_mails', static function (Blueprint $table): void {
            $table->mediumText('raw')->charset('binary')->nullable();
        });
        // Letters keep their marks: a link that stood there is not made again.
        Schema::table('messages', static function (Blueprint $table): void {
            $table->dropColumn(['seat_id', 'seat_round']);
        });
    }
};
