<?php

declare(strict_types=1);

namespace App\Http\Import;

use Illuminate\Foundation\Http\FormRequest;

final class ImportStartInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['answered' => 'required|boolean'];
    }
}
