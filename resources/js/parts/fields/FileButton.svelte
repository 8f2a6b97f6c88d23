<script lang="ts">
    import { Fileupload } from 'flowbite-svelte';

    /* A button that asks for a file. */
    type Props = { says: string; accept?: string; busy?: boolean; onchoose: (file: File) => void };
    let { says, accept, busy = false, onchoose }: Props = $props();

    function chosen(event: Event & { currentTarget: HTMLInputElement }) {
        const file = event.currentTarget.files?.[0];
        // The same file can be chosen again.
        event.currentTarget.value = '';
        if (file) onchoose(file);
    }
</script>

<label class="btn {busy ? 'opacity-50' : ''} focus-within:outline-2 focus-within:outline-iris"
    >{says}<Fileupload class="sr-only" {accept} disabled={busy} onchange={chosen} /></label
>
