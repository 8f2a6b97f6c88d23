<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class NewConditionInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['recordType' => 'required|string', 'name' => 'present|nullable|string', 'file' => 'required|array'];
    }
}
