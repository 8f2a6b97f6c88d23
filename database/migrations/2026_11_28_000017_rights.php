<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Roles can be edited: what each may do is data. The four there have always been may what they might. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('roles', static function (Blueprint $table): void {
            $table->string('name', 64)->charset('ascii')->collation('ascii_bin')->primary();
            $table->unsignedInteger('position');
            $table->unsignedInteger('version')->default(1);
            $table->json('file');
        });
        $file = (string) file_get_contents(database_path('sets/roles.json'));
        foreach (array_values((array) json_decode($file, true, 16, JSON_THROW_ON_ERROR)) as $position => $role) {
            DB::table('roles')->insert([
                'name' => $role['name'], 'position' => $position,
                'file' => json_encode(array_diff_key($role, ['name' => 0]), JSON_THROW_ON_ERROR),
            ]);
        }
        Schema::table('people', static function (Blueprint $table): void {
            $table->string('role', 64)->charset('ascii')->collation('ascii_bin')->change();
        });
    }

    public function down(): void
    {
        Schema::drop('roles');
    }
};
