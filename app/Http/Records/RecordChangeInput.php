<?php

declare(strict_types=1);

namespace App\Http\Records;

use Illuminate\Foundation\Http\FormRequest;

final class RecordChangeInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['version' => 'required|integer', 'values' => 'present|array'];
    }
}
