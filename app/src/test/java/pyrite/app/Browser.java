package pyrite.app;

import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.nio.file.Path;
import java.time.Duration;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** A real browser with a profile of its own, as large as the reference screen. */
final class Browser implements AutoCloseable {
    private static final Dimension REFERENCE = new Dimension(1280, 800);

    /** Most of what a page is waited for comes at once; Selenium would look twice a second. */
    private static final Duration POLL = Duration.ofMillis(40);

    private final ChromeDriver driver;
    private final WebDriverWait wait;

    Browser() {
        ChromeOptions options = new ChromeOptions()
                .setBinary("/usr/bin/chromium")
                .addArguments(
                        "--headless=new",
                        "--no-sandbox",
                        "--disable-gpu",
                        "--disable-quic",
                        "--no-first-run",
                        "--disable-background-networking",
                        "--disable-component-update",
                        "--disable-sync",
                        "--window-size=1280,800",
                        "--user-data-dir=" + Folders.make("pyrite-browser"));
        driver = new ChromeDriver(
                new ChromeDriverService.Builder()
                        .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                        .build(),
                options);
        wait = new WebDriverWait(driver, Duration.ofSeconds(30), POLL);
        wait.ignoring(StaleElementReferenceException.class);
    }

    ChromeDriver driver() {
        return driver;
    }

    WebDriverWait until() {
        return wait;
    }

    /** Signs in as one of the people of the demo. */
    void signIn(String address, String name) {
        driver.get(address + "/");
        wait.until(visibilityOfElementLocated(By.id("username"))).sendKeys(name);
        driver.findElement(By.id("password")).sendKeys("merrow" + Keys.ENTER);
        wait.until(urlContains("/overview"));
    }

    /** Leaves the page and whoever was signed in, with what pages kept. */
    void forget() {
        driver.executeScript("localStorage.clear(); sessionStorage.clear();");
        driver.manage().deleteAllCookies();
        driver.get("about:blank");
        driver.manage().window().setSize(REFERENCE);
        driver.manage().logs().get("browser");
    }

    @Override
    public void close() {
        driver.quit();
    }
}
