<?php

declare(strict_types=1);

namespace App\Http\Import;

use Illuminate\Foundation\Http\FormRequest;

final class ImportInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['recordType' => 'required|string', 'name' => 'required|string|max:200', 'bytes' => 'required|integer|min:1'];
    }
}
