import styles from './alone.module.css'

/** A code is typed where no camera reads it. Works without script. */
export function TypeCode({ title }: Readonly<{ title: string }>) {
  return (
    <main className={styles.page}>
      <h1>{title}</h1>
      <p className={styles.lead}>It is printed below the bike’s number: ten letters and digits, such as abcde fghjk.</p>
      <form className={styles.leave} action="/b">
        <label htmlFor="code">Code</label>
        <input
          id="code"
          name="code"
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          maxLength={24}
          required
          aria-describedby="code-help"
        />
        <button type="submit" className={styles.go}>
          Open the bike
        </button>
        <p id="code-help">Where the code on the bike was changed or is gone, ask the instructor.</p>
      </form>
    </main>
  )
}
