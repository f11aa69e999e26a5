<script lang="ts">
  import { t } from '../../words/language';
  const FILES = 'application/pdf,.pdf,image/jpeg,image/png,image/tiff,image/svg+xml,.jpg,.jpeg,.png,.tif,.tiff,.svg';
  interface Props {
    /** What it says. */
    words?: string;
    quiet?: boolean;
    /** Takes several files at once. */
    many?: boolean;
    /** Endings and types that are offered; those that can be taken in if nothing else is said. */
    accept?: string;
    onfiles: (files: File[]) => void;
  }
  let { words = t`Choose files`, quiet = false, many = false, accept = FILES, onfiles }: Props = $props();
</script>

<label class="btn" class:q={quiet}
  >{words}<input
    type="file"
    {accept}
    multiple={many}
    onchange={(event) => {
      const files = [...(event.currentTarget.files ?? [])];
      // The same file may be chosen again.
      event.currentTarget.value = '';
      if (files.length) onfiles(files);
    }}
  /></label
>

<style>
  label {
    position: relative;
    justify-self: start;
  }
  label:focus-within {
    outline: 2px solid var(--ink);
  }
  input {
    position: absolute;
    inset: 0;
    width: 100%;
    opacity: 0;
  }
</style>
